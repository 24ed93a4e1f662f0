import {
  type ChannelFields,
  type Gap,
  type Plan,
  type Run,
  type RunPatch,
  type Spot,
  withConditionsChanged,
} from '@heuristor/contracts';
import { type Transaction } from 'objection';
import { Failure } from '../failure';
import { ChannelModel } from '../models/channel';
import { GapModel } from '../models/gap';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';
import { livesIn } from './processLease';
import { findNextRow } from './plannedRows';
import { presentRun } from './present';

export const partsOfRun = '[channels, gaps, spots]';

export interface NewRun {
  id?: string;
  investigationId: string;
  name?: string;
  origin: Run['origin'];
  state: Run['state'];
  plan: Plan;
  channels: ChannelFields[];
  /** The process that records it. */
  recordedBy?: string;
  /** How it is taken reading by reading. */
  spot?: Omit<Spot, 'rows'>;
  /** When it began, where that is not now, and where the clock hung; null where nobody knows. */
  startedAt?: Date;
  timeZone?: string | null;
}

/** The zone of the clock of this computer. */
export const ownTimeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Adds a run with the next number of its investigation; numbers are never used twice. What was said of the last one goes on. */
export async function addRun(run: NewRun, transaction?: Transaction): Promise<Run> {
  const work = async (inside: Transaction): Promise<Run> => {
    // The investigation's row is the lock that keeps two runs from taking one number.
    await InvestigationModel.query(inside).findById(run.investigationId).forUpdate();
    const last = await RunModel.query(inside)
      .where({ investigationId: run.investigationId })
      .max('number as number')
      .first();
    const number = (last?.number ?? 0) + 1;
    // What was said of the last run is mostly true of the next one too.
    const before =
      run.origin === 'recorded'
        ? await RunModel.query(inside)
            .where({ investigationId: run.investigationId, origin: 'recorded' })
            .whereNull('deletedAt')
            .orderBy('number', 'desc')
            .first()
        : undefined;
    const ofNext = run.origin === 'recorded' ? run.plan.forNext : { conditions: {}, group: '' };
    const planned =
      run.origin === 'recorded' && !run.plan.practice
        ? await findNextRow(run.investigationId, run.plan.forNext.planned, inside)
        : null;
    const inserted = await RunModel.query(inside).insertAndFetch({
      ...(run.id === undefined ? {} : { id: run.id }),
      investigationId: run.investigationId,
      number,
      name: run.name ?? `run ${number}`,
      origin: run.origin,
      state: run.state,
      plan: run.plan,
      recordedBy: run.recordedBy ?? null,
      spot: run.spot ?? null,
      notes: [],
      practice: run.origin === 'recorded' && run.plan.practice,
      conditions: { ...(before?.conditions ?? ofNext.conditions), ...planned?.conditions },
      group: before?.group ?? ofNext.group,
      remark: '',
      planned: planned?.id ?? null,
      ...(run.startedAt === undefined ? {} : { startedAt: run.startedAt }),
      timeZone: run.timeZone === undefined ? ownTimeZone() : run.timeZone,
      endedAt: run.state === 'ended' ? new Date() : null,
    });
    inserted.channels = [];
    for (const [position, channel] of run.channels.entries())
      inserted.channels.push(
        await ChannelModel.query(inside).insertAndFetch({ ...channel, runId: inserted.id, position }),
      );
    await InvestigationModel.query(inside).findById(run.investigationId).patch({ updatedAt: new Date() });
    return presentRun(inserted);
  };
  return transaction === undefined ? RunModel.transaction(work) : work(transaction);
}

/** A run, or null where there is none. */
export async function findRun(id: string): Promise<Run | null> {
  const run = await RunModel.query().findById(id).withGraphFetched(partsOfRun);
  return run === undefined ? null : presentRun(run);
}

/** Runs with their channels, in any order; those that there are not are left out. */
export async function findRuns(ids: readonly string[]): Promise<Run[]> {
  const runs = await RunModel.query()
    .findByIds([...ids])
    .withGraphFetched(partsOfRun);
  return runs.map(presentRun);
}

/** A run with its channels. @throws Failure */
export async function readRun(id: string, transaction?: Transaction): Promise<Run> {
  const run = await RunModel.query(transaction).findById(id).withGraphFetched(partsOfRun);
  if (run === undefined) throw new Failure('not-found', 'There is no such run.');
  return presentRun(run);
}

/**
 * Changes what people may change of a run. Removing is marking; it can be taken back at any time.
 * @throws Failure where there is none, or where it is removed while it is being recorded
 */
export async function changeRun(id: string, { removed, conditions, ...patch }: RunPatch): Promise<Run> {
  return RunModel.transaction(async (transaction) => {
    // Two who type different conditions of one run at once must not overwrite each other's.
    const run = await RunModel.query(transaction).findById(id).forUpdate();
    if (run === undefined) throw new Failure('not-found', 'There is no such run.');
    if (removed === true && run.state === 'recording')
      throw new Failure('already-recording', 'This run is being recorded. Stop it first.');
    const changes = {
      ...patch,
      ...(conditions === undefined ? {} : { conditions: withConditionsChanged(run.conditions, conditions) }),
      ...(removed === undefined ? {} : { deletedAt: removed ? new Date() : null }),
    };
    if (Object.keys(changes).length > 0) await RunModel.query(transaction).findById(id).patch(changes);
    return readRun(id, transaction);
  });
}

/** What is said of a run as it goes. */
interface Marks {
  gaps: readonly Gap[];
  notes: readonly string[];
}

/** Stores gaps and sentences of a run that is locked: what changed and what is new, never all of them anew. */
async function storeMarks(run: RunModel, { gaps, notes }: Marks, transaction: Transaction): Promise<void> {
  const known = await GapModel.query(transaction).where({ runId: run.id }).orderBy('id');
  for (const [place, gap] of gaps.entries()) {
    const before = known[place];
    if (before === undefined) await GapModel.query(transaction).insert({ runId: run.id, ...gap });
    else if (before.to !== gap.to || before.from !== gap.from)
      await GapModel.query(transaction).findById(before.id).patch({ from: gap.from, to: gap.to });
  }
  await RunModel.query(transaction)
    .findById(run.id)
    .patch({ notes: [...notes] });
}

/** Stores the gaps and sentences of a run that is being recorded; what comes late, after its end, is known already. */
export async function markRun(id: string, marks: Marks): Promise<Run> {
  await RunModel.transaction(async (transaction) => {
    // Two at once would both take a gap for new.
    const run = await RunModel.query(transaction).findById(id).forUpdate();
    if (run !== undefined && run.state !== 'ended') await storeMarks(run, marks, transaction);
  });
  return readRun(id);
}

/** Ends a run, with all that is to be said of it. */
export async function endRun(id: string, marks: Marks): Promise<Run> {
  await RunModel.transaction(async (transaction) => {
    const run = await RunModel.query(transaction).findById(id).forUpdate();
    if (run === undefined) return;
    await storeMarks(run, marks, transaction);
    await RunModel.query(transaction).findById(id).patch({ state: 'ended', endedAt: new Date() });
  });
  return readRun(id);
}

/** Ids of the runs of an investigation that have ended and were not removed, in their order. */
export async function endedRunsOf(investigationId: string): Promise<string[]> {
  const runs = await RunModel.query()
    .where({ investigationId })
    .whereIn('state', ['ended', 'interrupted'])
    .whereNull('deletedAt')
    .orderBy('number')
    .select('id');
  return runs.map(({ id }) => id);
}

/** Marks runs that are being recorded by no process whose lease still runs. @returns them as they are now */
export async function markInterruptedRuns(): Promise<Run[]> {
  const marked = await RunModel.query()
    .where({ state: 'recording' })
    .whereRaw(`not ${livesIn('"recordedBy"')}`)
    .patch({ state: 'interrupted', endedAt: new Date() })
    .returning('id');
  return Promise.all((marked as unknown as RunModel[]).map(({ id }) => readRun(id)));
}

/** Takes runs on again that a process is recording, and that others took for interrupted. @returns them as they are now */
export async function takeRunsOn(process: string, ids: readonly string[]): Promise<Run[]> {
  const taken = await RunModel.query()
    .findByIds([...ids])
    .where({ state: 'interrupted', recordedBy: process })
    .patch({ state: 'recording', endedAt: null })
    .returning('id');
  return Promise.all((taken as unknown as RunModel[]).map(({ id }) => readRun(id)));
}
