import { type Plan, type Run, type RunPatch } from '@heuristor/contracts';
import { type Model, type Transaction } from 'objection';
import { Failure } from '../failure';
import { ChannelModel } from '../models/channel';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';
import { presentRun } from './present';

const styles = 8;

export type NewChannel = Omit<ChannelModel, 'id' | 'runId' | 'position' | keyof Model>;

export interface NewRun {
  investigationId: string;
  name?: string;
  origin: Run['origin'];
  state: Run['state'];
  plan: Plan;
  channels: NewChannel[];
}

/** Adds a run with the next number of its investigation; numbers are never used twice. */
export async function addRun(run: NewRun, transaction?: Transaction): Promise<Run> {
  const work = async (inside: Transaction): Promise<Run> => {
    // The investigation's row is the lock that keeps two runs from taking one number.
    await InvestigationModel.query(inside).findById(run.investigationId).forUpdate();
    const last = await RunModel.query(inside)
      .where({ investigationId: run.investigationId })
      .max('number as number')
      .first();
    const number = (last?.number ?? 0) + 1;
    const inserted = await RunModel.query(inside).insertAndFetch({
      investigationId: run.investigationId,
      number,
      name: run.name ?? `run ${number}`,
      origin: run.origin,
      state: run.state,
      style: (number - 1) % styles,
      plan: run.plan,
      gaps: [],
      endedAt: run.state === 'recording' ? null : new Date(),
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

/** A run with its channels. @throws Failure */
export async function readRun(id: string): Promise<Run> {
  const run = await RunModel.query().findById(id).withGraphFetched('channels');
  if (run === undefined) throw new Failure('not-found', 'There is no such run.');
  return presentRun(run);
}

export async function changeRun(id: string, patch: RunPatch | { gaps: Run['gaps'] }): Promise<Run> {
  if (Object.keys(patch).length > 0) await RunModel.query().findById(id).patch(patch);
  return readRun(id);
}

export async function endRun(id: string, state: 'ended' | 'interrupted'): Promise<Run> {
  await RunModel.query().findById(id).patch({ state, endedAt: new Date() });
  return readRun(id);
}

/** Removing is marking; the run can be put back at any time. @throws Failure while it is being recorded */
export async function removeRun(id: string, removed: boolean): Promise<Run> {
  const run = await readRun(id);
  if (run.state === 'recording')
    throw new Failure('already-recording', 'This run is being recorded. Stop it first.');
  await RunModel.query()
    .findById(id)
    .patch({ deletedAt: removed ? new Date() : null });
  return readRun(id);
}

/** Marks runs that a crash left open. Called once, before anything is recorded. */
export async function markInterruptedRuns(): Promise<number> {
  return RunModel.query().where({ state: 'recording' }).patch({ state: 'interrupted', endedAt: new Date() });
}
