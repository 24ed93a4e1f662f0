import { type Run, type SampleFrame } from '@heuristor/contracts';
import { Failure } from '../failure';
import { AwayRunModel, type AwayTrack } from '../models/awayRun';
import { BlockModel } from '../models/block';
import { ChannelModel } from '../models/channel';
import { RunModel } from '../models/run';
import { findInvestigation } from '../services/investigations';
import { addRun, readRun } from '../services/runs';
import { bytesOf, joinBlocks } from '../services/samples';

/** Runs of a device that are not stored whole and that nobody has thrown away for good. */
export const awayRunsOf = async (code: string): Promise<AwayRunModel[]> =>
  AwayRunModel.query().where({ code }).whereNull('storedAt').orderBy('preparedAt');

/** The run that what a device keeps becomes; it is entered with its first readings. */
export async function runOf(row: AwayRunModel): Promise<Run> {
  if (row.runId !== null) return readRun(row.runId);
  return AwayRunModel.transaction(async (transaction) => {
    const run = await addRun(
      {
        investigationId: row.investigationId,
        origin: 'away',
        state: 'fetching',
        plan: row.plan,
        channels: row.tracks.map(({ fields }) => fields),
      },
      transaction,
    );
    await AwayRunModel.query(transaction).findById(row.id).patch({ runId: run.id });
    row.runId = run.id;
    return run;
  });
}

/** How many readings of a stream are stored here. */
export async function storedOf(row: AwayRunModel, stream: string): Promise<number> {
  const channel = await firstChannel(row, stream);
  return channel === undefined ? 0 : storedOfChannel(channel.id);
}

async function firstChannel(row: AwayRunModel, stream: string): Promise<ChannelModel | undefined> {
  if (row.runId === null) return undefined;
  const position = row.tracks.findIndex((track) => track.stream === stream);
  return ChannelModel.query().where({ runId: row.runId, position }).first();
}

async function storedOfChannel(channelId: number): Promise<number> {
  const last = await BlockModel.query().where({ channelId }).orderBy('firstIndex', 'desc').first();
  return last === undefined ? 0 : last.firstIndex + last.count;
}

/**
 * Stores readings of one stream, of all its channels together or of none.
 * @throws Failure where they do not follow on what is stored
 */
export async function storeFrame(row: AwayRunModel, stream: string, frame: SampleFrame): Promise<number> {
  const run = await runOf(row);
  const { channels, values, times, firstIndex } = frame;
  const count = values.length / channels;
  await BlockModel.transaction(async (transaction) => {
    for (const [position, track] of row.tracks.entries()) {
      if (track.stream !== stream) continue;
      const { id: channelId } = run.channels[position];
      const last = await BlockModel.query(transaction)
        .where({ channelId })
        .orderBy('sequence', 'desc')
        .first()
        .forUpdate();
      if ((last === undefined ? 0 : last.firstIndex + last.count) !== firstIndex)
        throw new Failure('fault', 'These readings do not follow on what is stored.');
      await BlockModel.query(transaction).insert({
        channelId,
        sequence: (last?.sequence ?? -1) + 1,
        firstIndex,
        count,
        values: bytesOf(ownValues(values, channels, track)),
        times: times === null ? null : bytesOf(times),
      });
    }
  });
  return firstIndex + count;
}

function ownValues(
  values: Float64Array,
  channels: number,
  { channel, scale, offset }: AwayTrack,
): Float64Array {
  const own = new Float64Array(values.length / channels);
  for (let i = 0; i < own.length; i++) own[i] = scale * values[i * channels + channel] + offset;
  return own;
}

/** Shows a run that was fetched, with what there is to say of it. */
export async function endFetched(
  row: AwayRunModel,
  { begunAt, notes, isWhole }: { begunAt: number | null; notes: readonly string[]; isWhole: boolean },
): Promise<Run> {
  const run = await runOf(row);
  for (const { id } of run.channels) await joinBlocks(id);
  await RunModel.transaction(async (transaction) => {
    await RunModel.query(transaction)
      .findById(run.id)
      .patch({
        state: 'ended',
        notes: [...notes],
        preview: null,
        ...(begunAt === null ? {} : { startedAt: new Date(begunAt) }),
        endedAt: new Date(),
      });
    await AwayRunModel.query(transaction)
      .findById(row.id)
      .patch({ wanted: null, ...(isWhole ? { storedAt: new Date() } : {}) });
  });
  row.wanted = null;
  if (isWhole) row.storedAt = new Date();
  return readRun(run.id);
}

/** @throws Failure where the investigation of a run was removed: the device goes on keeping it */
export async function checkWanted({ code, investigationId }: AwayRunModel): Promise<void> {
  await findInvestigation(investigationId).catch((error: unknown) => {
    if (!(error instanceof Failure)) throw error;
    throw new Failure(
      'not-found',
      `The investigation of this run was removed. ${code} goes on keeping the run; put the investigation back to fetch it.`,
    );
  });
}
