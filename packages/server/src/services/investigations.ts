import {
  type Investigation,
  type InvestigationPatch,
  type InvestigationSummary,
  type WorkingsDocument,
  emptyWorkings,
  workingsSchema,
} from '@heuristor/contracts';
import { Failure } from '../failure';
import { ChannelModel } from '../models/channel';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';
import { presentRun } from './present';

const missing = () => new Failure('not-found', 'There is no such investigation. It may have been removed.');

/** An investigation that is there. @throws Failure */
export async function findInvestigation(id: string): Promise<InvestigationModel> {
  const found = await InvestigationModel.query().findById(id).whereNull('deletedAt');
  if (found === undefined) throw missing();
  return found;
}

/** All investigations, the one touched last on top. */
export async function listInvestigations(): Promise<InvestigationSummary[]> {
  const rows = await InvestigationModel.query()
    .whereNull('investigation.deletedAt')
    .select('investigation.*')
    .select(
      RunModel.query()
        .count()
        .whereColumn('run.investigationId', 'investigation.id')
        .whereNull('run.deletedAt')
        .as('runCount'),
    )
    .orderBy('updatedAt', 'desc');
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    runCount: Number((row as InvestigationModel & { runCount: number }).runCount),
    lineCount: row.workings.lines.length,
    updatedAt: row.updatedAt.toISOString(),
  }));
}

/** Whether there has ever been an investigation, removed ones included. */
export async function hasInvestigations(): Promise<boolean> {
  return (await InvestigationModel.query().resultSize()) > 0;
}

export async function createInvestigation(
  name: string,
  workings: WorkingsDocument = emptyWorkings,
): Promise<string> {
  const { id } = await InvestigationModel.query().insertAndFetch({
    name,
    plan: { lengthSeconds: 8 },
    workings,
  });
  return id;
}

/** An investigation with its runs, removed ones included, so that they can be put back. */
export async function readInvestigation(id: string): Promise<Investigation> {
  const found = await findInvestigation(id);
  const runs = await RunModel.query()
    .where({ investigationId: id })
    .withGraphFetched('channels')
    .orderBy('number');
  return {
    id: found.id,
    name: found.name,
    plan: found.plan,
    // Parsed, so that what an older version stored is brought into today's form or refused here.
    workings: workingsSchema.parse(found.workings),
    workingsVersion: found.workingsVersion,
    runs: runs.map(presentRun),
  };
}

export async function changeInvestigation(id: string, patch: InvestigationPatch): Promise<void> {
  await findInvestigation(id);
  await InvestigationModel.query()
    .findById(id)
    .patch({ ...patch, updatedAt: new Date() });
}

/**
 * Stores workings that were made from `version`.
 * @throws Failure with the newer document where somebody was faster
 */
export async function writeWorkings(
  id: string,
  version: number,
  workings: WorkingsDocument,
): Promise<number> {
  const changed = await InvestigationModel.query()
    .where({ id, workingsVersion: version })
    .whereNull('deletedAt')
    .patch({ workings, workingsVersion: version + 1, updatedAt: new Date() });
  if (changed === 1) return version + 1;
  const { workings: current, workingsVersion } = await readInvestigation(id);
  throw new Failure('stale-document', 'These workings were changed on another screen meanwhile.', {
    workings: current,
    version: workingsVersion,
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
export async function copyInvestigation(id: string): Promise<string> {
  const source = await findInvestigation(id);
  return InvestigationModel.transaction(async (transaction) => {
    const copy = await InvestigationModel.query(transaction).insertAndFetch({
      name: `${source.name} (copy)`,
      plan: source.plan,
      workings: source.workings,
    });
    const runs = await RunModel.query(transaction)
      .where({ investigationId: id })
      .whereNull('deletedAt')
      .whereNot({ state: 'recording' })
      .withGraphFetched('channels');
    for (const run of runs) {
      const columns = {
        number: run.number,
        name: run.name,
        origin: run.origin,
        state: run.state,
        shown: run.shown,
      };
      const { id: runId } = await RunModel.query(transaction).insertAndFetch({
        ...columns,
        style: run.style,
        plan: run.plan,
        gaps: run.gaps,
        startedAt: run.startedAt,
        endedAt: run.endedAt,
        investigationId: copy.id,
      });
      for (const channel of run.channels ?? []) {
        const { id: from, ...rest } = channel.toJSON();
        const { id: to } = await ChannelModel.query(transaction).insertAndFetch({ ...rest, runId });
        await transaction.raw(
          `insert into block ("channelId", sequence, "firstIndex", count, "values", times)
           select ?, sequence, "firstIndex", count, "values", times from block where "channelId" = ?`,
          [to, from],
        );
      }
    }
    return copy.id;
  });
}
