import {
  type Copied,
  type Binding,
  type Investigation,
  type InvestigationPatch,
  type InvestigationPage,
  type Plan,
  type Previews,
  UnreadableDocument,
  type WorkingsDocument,
  emptyWorkings,
  investigationsPerPage,
  withConditionsChanged,
  withRunsRenamed,
  readPlan,
  readWorkings,
  usualPlan,
} from '@heuristor/contracts';
import { type Transaction, raw } from 'objection';
import { type Actor, type Teacher } from '../auth/actor';
import { Failure } from '../failure';
import { ChannelModel } from '../models/channel';
import { GapModel } from '../models/gap';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';
import { SpotModel } from '../models/spot';
import { WorkingsModel } from '../models/workings';
import { investigationsSeenBy } from './access';
import { presentRun } from './present';
import { partsOfRun } from './runs';
import { copySetups } from './sensorUse';
import { inOneUnit, makePreview } from './previews';

const previewsShown = 3;

const missing = () => new Failure('not-found', 'There is no such investigation. It may have been removed.');

/** Reads a stored document. @throws Failure that says what is wrong with it */
function readable<T>(read: (stored: unknown) => T, stored: unknown): T {
  try {
    return read(stored);
  } catch (error) {
    if (error instanceof UnreadableDocument) throw new Failure('unreadable-document', error.message);
    throw error;
  }
}

/** An investigation that is there, its plan in today's form. @throws Failure */
export async function findInvestigation(id: string): Promise<{ id: string; name: string; plan: Plan }> {
  const found = await InvestigationModel.query().findById(id).whereNull('deletedAt');
  if (found === undefined) throw missing();
  return { id: found.id, name: found.name, plan: readable(readPlan, found.plan) };
}

/** What stands in a pattern of SQL for itself. */
const literal = (text: string) => text.replace(/[\\%_]/g, '\\$&');

/**
 * Some of the investigations whose name holds a text, the one used last on top.
 * @param from how many come before them
 */
export async function listInvestigations(
  actor: Actor,
  search: string,
  from: number,
): Promise<InvestigationPage> {
  const wanted = () =>
    investigationsSeenBy(actor)
      .whereNull('deletedAt')
      .where('name', 'ilike', `%${literal(search)}%`);
  const total = await wanted().resultSize();
  const rows = await wanted()
    .select('id', 'name', 'usedAt', 'updatedAt')
    .orderBy('usedAt', 'desc', 'last')
    .orderBy('id')
    .offset(from)
    .limit(investigationsPerPage);
  const ids = rows.map(({ id }) => id);
  const runs = await counted(
    RunModel.query()
      .whereIn('investigationId', ids)
      .whereNull('deletedAt')
      .whereNot({ state: 'fetching' })
      .groupBy('investigationId')
      .select('investigationId', raw('count(*)::int as count')),
  );
  // A document that cannot be read must not hide the list of all the others.
  const entries = await counted(
    WorkingsModel.query()
      .whereIn('investigationId', ids)
      .where({ ownerId: actor.id })
      .select(
        'investigationId',
        raw(
          "case jsonb_typeof(document -> 'entries') when 'array' then jsonb_array_length(document -> 'entries') else 0 end as count",
        ),
      ),
  );
  return {
    total,
    investigations: rows.map(({ id, name, usedAt, updatedAt }) => ({
      id,
      name,
      runCount: runs.get(id) ?? 0,
      entryCount: entries.get(id) ?? 0,
      usedAt: (usedAt ?? updatedAt).toISOString(),
    })),
  };
}

async function counted(query: PromiseLike<unknown>): Promise<Map<string, number>> {
  const rows = (await query) as { investigationId: string; count: number }[];
  return new Map(rows.map(({ investigationId, count }) => [investigationId, count]));
}

/** Small pictures of the runs of an investigation that are shown, the last ones. */
export async function previewsOf(id: string): Promise<Previews> {
  const runs = await RunModel.query()
    .where({ investigationId: id, shown: true })
    .whereNull('deletedAt')
    .whereNotIn('state', ['fetching', 'recording'])
    .select('id', 'style', 'preview')
    .orderBy('number', 'desc')
    .limit(previewsShown);
  const previews = await Promise.all(
    runs.reverse().map(async ({ id: runId, style, preview }) => ({
      style,
      preview: preview ?? (await makePreview(runId)),
    })),
  );
  return inOneUnit(
    previews.flatMap(({ style, preview }) => (preview === null ? [] : [{ style, ...preview }])),
  );
}

/** Whether there has ever been an investigation, removed ones included. */
export async function hasInvestigations(): Promise<boolean> {
  return (await InvestigationModel.query().resultSize()) > 0;
}

export async function createInvestigation(
  owner: Teacher,
  name: string,
  workings: WorkingsDocument = emptyWorkings,
): Promise<string> {
  return InvestigationModel.transaction(async (transaction) => {
    const { id } = await InvestigationModel.query(transaction).insertAndFetch({
      name,
      ownerId: owner.id,
      plan: usualPlan,
      usedAt: new Date(),
    });
    await addWorkings(owner, id, workings, transaction);
    return id;
  });
}

async function addWorkings(
  owner: Actor,
  investigationId: string,
  document: unknown,
  transaction: Transaction,
): Promise<void> {
  await WorkingsModel.query(transaction).insert({ investigationId, ownerId: owner.id, document });
}

/** The workings that somebody sees over an investigation: his own; a screen sees those of its owner. @throws Failure */
async function findWorkings(actor: Actor, investigationId: string): Promise<WorkingsModel> {
  const of = (ownerId: string) => WorkingsModel.query().where({ investigationId, ownerId }).first();
  const own = actor.kind === 'screen' ? undefined : await of(actor.id);
  if (own !== undefined) return own;
  const investigation = await InvestigationModel.query().findById(investigationId);
  const whole = investigation === undefined ? undefined : await of(investigation.ownerId);
  if (whole === undefined) throw missing();
  if (actor.kind !== 'participant') return whole;
  // Who takes part begins with what stands there, and goes on alone. Two pages that open at once begin once.
  await WorkingsModel.query()
    .insert({ investigationId, ownerId: actor.id, document: whole.document })
    .onConflict(['investigationId', 'ownerId'])
    .ignore();
  return of(actor.id).throwIfNotFound();
}

/** An investigation with its runs, removed ones included, so that they can be put back. */
export async function readInvestigation(
  actor: Actor,
  id: string,
): Promise<Omit<Investigation, 'recorder' | 'sensors' | 'spots' | 'ended'>> {
  const { name, plan } = await findInvestigation(id);
  const { document, version, ownerId } = await findWorkings(actor, id);
  const runs = await RunModel.query()
    .where({ investigationId: id })
    .whereNot({ state: 'fetching' })
    .withGraphFetched(partsOfRun)
    .orderBy('number');
  await InvestigationModel.query().findById(id).patch({ usedAt: new Date() });
  return {
    id,
    name,
    plan,
    workings: readable(readWorkings, document),
    workingsVersion: version,
    workingsOwner: ownerId,
    runs: runs.map(presentRun),
  };
}

/** @returns name and plan as they stand then */
export async function changeInvestigation(
  id: string,
  { name, plan, forNext }: InvestigationPatch,
): Promise<{ name: string; plan: Plan }> {
  return withPlan(id, (found) => ({
    ...(name === undefined ? {} : { name }),
    ...(plan === undefined && forNext === undefined
      ? {}
      : {
          plan: {
            ...found,
            ...plan,
            forNext: {
              group: forNext?.group ?? found.forNext.group,
              conditions: withConditionsChanged(found.forNext.conditions, forNext?.conditions ?? {}),
            },
          },
        }),
    updatedAt: new Date(),
  }));
}

/** Changes an investigation by what its plan is at that moment: two screens may change different parts of it at once. */
async function withPlan(
  id: string,
  change: (plan: Plan) => { name?: string; plan?: Plan; updatedAt?: Date } | null,
): Promise<{ name: string; plan: Plan }> {
  return InvestigationModel.transaction(async (transaction) => {
    const found = await InvestigationModel.query(transaction).findById(id).whereNull('deletedAt').forUpdate();
    if (found === undefined) throw missing();
    const before = { name: found.name, plan: readable(readPlan, found.plan) };
    const patch = change(before.plan);
    if (patch === null) return before;
    await InvestigationModel.query(transaction).findById(id).patch(patch);
    return { name: patch.name ?? before.name, plan: patch.plan ?? before.plan };
  });
}

/** Remembers which channel of which device a quantity comes from, for the runs to come. */
export async function keepBindings(id: string, bindings: Binding[]): Promise<void> {
  await withPlan(id, (plan) =>
    JSON.stringify(plan.bindings) === JSON.stringify(bindings) ? null : { plan: { ...plan, bindings } },
  );
}

/**
 * Stores workings that were made from `version`.
 * @throws Failure with the newer document where somebody was faster
 */
export async function writeWorkings(
  actor: Actor,
  investigationId: string,
  version: number,
  workings: WorkingsDocument,
): Promise<number> {
  await findInvestigation(investigationId);
  if (actor.kind === 'screen') throw new Failure('not-allowed', 'A screen only shows what others work out.');
  const changed = await WorkingsModel.query()
    .where({ investigationId, ownerId: actor.id, version })
    .patch({ document: workings, version: version + 1, updatedAt: new Date() });
  if (changed === 1) {
    await InvestigationModel.query().findById(investigationId).patch({ updatedAt: new Date() });
    return version + 1;
  }
  const current = await findWorkings(actor, investigationId);
  throw new Failure('stale-document', 'These workings were changed on another screen meanwhile.', {
    workings: readable(readWorkings, current.document),
    version: current.version,
  });
}

export async function removeInvestigation(id: string): Promise<void> {
  await findInvestigation(id);
  await InvestigationModel.query().findById(id).patch({ deletedAt: new Date() });
}

export async function restoreInvestigation(id: string): Promise<void> {
  const restored = await InvestigationModel.query().findById(id).patch({ deletedAt: null });
  if (restored === 0) throw missing();
}

/** A copy with plan, workings and all runs that are not removed. */
export async function copyInvestigation(owner: Teacher, id: string): Promise<Copied> {
  const source = await findInvestigation(id);
  const { document } = await findWorkings(owner, id);
  return InvestigationModel.transaction(async (transaction) => {
    const copy = await InvestigationModel.query(transaction).insertAndFetch({
      name: `${source.name.slice(0, 113)} (copy)`,
      plan: source.plan,
      ownerId: owner.id,
      usedAt: new Date(),
    });
    await copySetups(id, copy.id, transaction);
    const copies = new Map<string, string>();
    const present = await RunModel.query(transaction)
      .where({ investigationId: id })
      .whereNull('deletedAt')
      .withGraphFetched(partsOfRun);
    const isWhole = ({ state }: RunModel) => state !== 'recording' && state !== 'fetching';
    const runs = present.filter(isWhole);
    for (const run of runs) {
      const { channels = [], gaps = [], spots = [], ...whole } = run.toJSON() as unknown as RunModel;
      const columns: Partial<RunModel> = { ...whole };
      delete columns.id;
      const { id: runId } = await RunModel.query(transaction).insertAndFetch({
        ...columns,
        startedAt: run.startedAt,
        endedAt: run.endedAt,
        investigationId: copy.id,
      });
      copies.set(run.id, runId);
      for (const { channel, from, to } of gaps)
        await GapModel.query(transaction).insert({ runId, channel, from, to });
      for (const { cells, at, removedAt } of spots.sort((a, b) => a.id - b.id))
        await SpotModel.query(transaction).insert({ runId, cells, at, removedAt });
      for (const channel of channels) {
        const { id: from, ...rest } = channel;
        const { id: to } = await ChannelModel.query(transaction).insertAndFetch({ ...rest, runId });
        await transaction.raw(
          `insert into block ("channelId", sequence, "firstIndex", count, "values", "times")
           select ?, sequence, "firstIndex", count, "values", "times" from block where "channelId" = ?`,
          [to, from],
        );
      }
    }
    await addWorkings(owner, copy.id, withRunsRenamed(readable(readWorkings, document), copies), transaction);
    const left = present.filter((run) => !isWhole(run)).map(({ name }) => name);
    return { id: copy.id, left };
  });
}
