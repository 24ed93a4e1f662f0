import { type Transaction } from 'objection';
import { ChannelModel } from '../models/channel';
import { GapModel } from '../models/gap';
import { RunModel } from '../models/run';
import { SpotModel } from '../models/spot';

/** Whether all of a run is here. */
export const isWhole = ({ state }: Pick<RunModel, 'state'>): boolean =>
  state !== 'recording' && state !== 'fetching';

/**
 * Copies a run with all its readings.
 * @param run with its parts
 * @param changes what is another in the copy: the investigation that it is for, at least
 * @returns the id of the copy
 */
export async function copyRun(
  run: RunModel,
  changes: Partial<RunModel> & Pick<RunModel, 'investigationId'>,
  transaction: Transaction,
): Promise<string> {
  const { channels = [], gaps = [], spots = [], ...whole } = run.toJSON() as unknown as RunModel;
  const columns: Partial<RunModel> = { ...whole };
  delete columns.id;
  const { id: runId } = await RunModel.query(transaction).insertAndFetch({
    ...columns,
    startedAt: run.startedAt,
    endedAt: run.endedAt,
    ...changes,
  });
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
  return runId;
}
