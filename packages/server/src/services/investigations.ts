import {
  type Copied,
  type Binding,
  type Investigation,
  type InvestigationPatch,
  type InvestigationList,
  type InvestigationOrder,
  type InvestigationPage,
  type Plan,
  type Previews,
  type WorkingsDocument,
  emptyWorkings,
  type KeptKind,
  keptKindKeys,
  keptKinds,
  daysToPutBack,
  investigationsPerPage,
  lookOf,
  withConditionsChanged,
  readPlan,
  usualPlan,
} from '@heuristor/contracts';
import { type QueryBuilder, raw } from 'objection';
import { type Actor, type Teacher } from '../auth/actor';
import { Failure } from '../failure';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';
import { DocumentModel } from '../models/document';
import { investigationsSeenBy } from './access';
import { copyRun, isWhole } from './copyRun';
import { addDocument, findDocument, readable } from './documents';
import { copyNotebook } from './notebooks';
import { presentRun } from './present';
import { partsOfRun } from './runs';
import { copySetups } from './sensorUse';
import { inOneUnit, makePreview } from './previews';

const previewsShown = 3;

const missing = () => new Failure('not-found', 'There is no such investigation. It may have been removed.');

/** An investigation that is there, its plan in today's form. @throws Failure */
export async function findInvestigation(
  id: string,
): Promise<{ id: string; name: string; theme: string; plan: Plan }> {
  const found = await InvestigationModel.query().findById(id).whereNull('deletedAt');
  if (found === undefined) throw missing();
  return { id: found.id, name: found.name, theme: found.theme, plan: readable(readPlan, found.plan) };
}

/** What stands in a pattern of SQL for itself. */
const literal = (text: string) => text.replace(/[\\%_]/g, '\\$&');

export interface Wanted {
  /** Found in a name, a theme, a quantity that was recorded, or what was noted of a run. */
  search: string;
  of: InvestigationList;
  by: InvestigationOrder;
  /** How many come before them. */
  from: number;
}

/** Some of somebody's investigations, the one used last on top; of removed ones, the one removed last. */
export async function listInvestigations(
  actor: Actor,
  { search, of, by, from }: Wanted,
): Promise<InvestigationPage> {
  const wanted = () => ofList(actor, of).where((found) => searched(found, search));
  const total = await wanted().resultSize();
  const ordered = by === 'theme' ? wanted().orderByRaw("theme = '', lower(theme)") : wanted();
  const rows = await ordered
    .select('id', 'name', 'usedAt', 'updatedAt', 'theme', 'deletedAt')
    .orderBy(of === 'removed' ? 'deletedAt' : 'usedAt', 'desc', 'last')
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
    DocumentModel.query()
      .whereIn('investigationId', ids)
      .where({ ownerId: actor.id, kind: 'workings' })
      .select(
        'investigationId',
        raw(
          "case jsonb_typeof(content -> 'entries') when 'array' then jsonb_array_length(content -> 'entries') else 0 end as count",
        ),
      ),
  );
  return {
    total,
    investigations: rows.map(({ id, name, usedAt, updatedAt, theme, deletedAt }) => ({
      id,
      name,
      runCount: runs.get(id) ?? 0,
      entryCount: entries.get(id) ?? 0,
      usedAt: (usedAt ?? updatedAt).toISOString(),
      theme,
      removedAt: deletedAt?.toISOString() ?? null,
    })),
  };
}

type Investigations = QueryBuilder<InvestigationModel>;

function ofList(actor: Actor, of: InvestigationList): Investigations {
  const all = investigationsSeenBy(actor);
  // What was removed is there for those alone who can put it back.
  if (of === 'removed')
    return all
      .where({ ownerId: actor.id })
      .where('deletedAt', '>', new Date(Date.now() - daysToPutBack * 24 * 3600 * 1000));
  const present = all.whereNull('deletedAt');
  return of === 'all' ? present : present.where({ isExample: of === 'examples' });
}

/** Those in which a text is found. */
function searched(found: Investigations, search: string): void {
  if (search === '') return;
  const pattern = `%${literal(search)}%`;
  const runs = () =>
    RunModel.query().whereColumn('run.investigationId', 'investigation.id').whereNull('run.deletedAt');
  void found
    .where('investigation.name', 'ilike', pattern)
    .orWhere('theme', 'ilike', pattern)
    .orWhereExists(
      runs().where(
        (said) => void said.where('run.remark', 'ilike', pattern).orWhere('run.name', 'ilike', pattern),
      ),
    )
    .orWhereExists(runs().joinRelated('channels').where('channels.quantity', 'ilike', pattern));
}

async function counted(query: PromiseLike<unknown>): Promise<Map<string, number>> {
  const rows = (await query) as { investigationId: string; count: number }[];
  return new Map(rows.map(({ investigationId, count }) => [investigationId, count]));
}

/** Small pictures of the runs of an investigation that somebody shows, the last ones. */
export async function previewsOf(actor: Actor, id: string): Promise<Previews> {
  const { document } = await findDocument(actor, id, 'workings');
  const hidden = document.runs.filter((choice) => choice.hidden === true).map(({ run }) => run);
  const runs = await RunModel.query()
    .where({ investigationId: id })
    .whereNotIn('id', hidden)
    .whereNull('deletedAt')
    .whereNotIn('state', ['fetching', 'recording'])
    .select('id', 'number', 'preview')
    .orderBy('number', 'desc')
    .limit(previewsShown);
  const previews = await Promise.all(
    runs.reverse().map(async ({ id: runId, number, preview }) => ({
      style: lookOf({ id: runId, number }, document.runs).style,
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
    await addDocument(owner, id, 'workings', workings, transaction);
    return id;
  });
}

/** An investigation is one of those that come with Heuristor. */
export async function markAsExample(id: string): Promise<void> {
  await InvestigationModel.query().findById(id).patch({ isExample: true });
}

/** The runs of an investigation, removed ones included, and what is asked of each; its place in a list stays. */
export async function runsWithPlan(id: string): Promise<Pick<Investigation, 'plan' | 'runs'>> {
  const { plan } = await findInvestigation(id);
  const runs = await RunModel.query()
    .where({ investigationId: id })
    .whereNot({ state: 'fetching' })
    .withGraphFetched(partsOfRun)
    .orderBy('number');
  return { plan, runs: runs.map(presentRun) };
}

/** An investigation with its runs, removed ones included, so that they can be put back. */
export async function readInvestigation(
  actor: Actor,
  id: string,
): Promise<Omit<Investigation, 'recorder' | 'sensors' | 'spots' | 'ended'>> {
  const { name } = await findInvestigation(id);
  const { plan, runs } = await runsWithPlan(id);
  const { document, version, owner } = await findDocument(actor, id, 'workings');
  // Its place in the owner’s list is the owner’s: others who look do not move it.
  await InvestigationModel.query().findById(id).where({ ownerId: actor.id }).patch({ usedAt: new Date() });
  return {
    id,
    name,
    plan,
    workings: document,
    workingsVersion: version,
    workingsOwner: owner,
    runs,
  };
}

/** @returns name and plan as they stand then */
export async function changeInvestigation(
  id: string,
  { name, theme, plan, forNext }: InvestigationPatch,
): Promise<{ name: string; plan: Plan }> {
  return withPlan(id, (found) => ({
    ...(name === undefined ? {} : { name }),
    ...(theme === undefined ? {} : { theme }),
    ...(plan === undefined && forNext === undefined
      ? {}
      : {
          plan: {
            ...found,
            ...plan,
            forNext: {
              group: forNext?.group ?? found.forNext.group,
              conditions: withConditionsChanged(found.forNext.conditions, forNext?.conditions ?? {}),
              planned: forNext?.planned === undefined ? found.forNext.planned : forNext.planned,
            },
          },
        }),
    updatedAt: new Date(),
  }));
}

/** Changes an investigation by what its plan is at that moment: two screens may change different parts of it at once. */
async function withPlan(
  id: string,
  change: (plan: Plan) => { name?: string; theme?: string; plan?: Plan; updatedAt?: Date } | null,
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
  return InvestigationModel.transaction(async (transaction) => {
    const copy = await InvestigationModel.query(transaction).insertAndFetch({
      name: `${source.name.slice(0, 113)} (copy)`,
      plan: source.plan,
      theme: source.theme,
      ownerId: owner.id,
      usedAt: new Date(),
    });
    await copySetups(id, copy.id, transaction);
    const copies = new Map<string, string>();
    const present = await RunModel.query(transaction)
      .where({ investigationId: id })
      .whereNull('deletedAt')
      .withGraphFetched(partsOfRun);
    const runs = present.filter(isWhole);
    for (const run of runs) {
      copies.set(run.id, await copyRun(run, { investigationId: copy.id }, transaction));
    }
    const copyKept = async <K extends KeptKind>(kind: K) => {
      const { document } = await findDocument(owner, id, kind);
      await addDocument(owner, copy.id, kind, keptKinds[kind].overCopies(document, copies), transaction);
    };
    for (const kind of keptKindKeys) await copyKept(kind);
    await copyNotebook(owner, { from: id, to: copy.id }, copies, transaction);
    const left = present.filter((run) => !isWhole(run)).map(({ name }) => name);
    return { id: copy.id, left };
  });
}
