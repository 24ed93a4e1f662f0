import { type Transaction } from 'objection';
import { Failure } from '../failure';
import { BlockModel } from '../models/block';
import { ChannelModel } from '../models/channel';

const blockReadings = 65_536;

export const bytesOf = (values: Float64Array): Buffer =>
  Buffer.from(values.buffer, values.byteOffset, values.byteLength);

/** All stored readings (or times) of a channel, float64 little endian. @throws Failure */
export async function readSamples(channelId: number, what: 'values' | 'times'): Promise<Buffer> {
  const channel = await ChannelModel.query().findById(channelId);
  if (channel === undefined) throw new Failure('not-found', 'There is no such channel.');
  if (what === 'times' && channel.interval !== null)
    throw new Failure(
      'not-found',
      'This channel is sampled regularly; its times follow from start and interval.',
    );
  const blocks = await BlockModel.query().where({ channelId }).orderBy('sequence').select(what);
  return Buffer.concat(blocks.map((block) => block[what] ?? Buffer.alloc(0)));
}

/** Stores a whole channel in large blocks. */
export async function writeSamples(
  channelId: number,
  values: Float64Array,
  times: Float64Array | null,
  transaction?: Transaction,
): Promise<void> {
  for (let first = 0, sequence = 0; first < values.length; first += blockReadings, sequence++) {
    const part = values.subarray(first, first + blockReadings);
    await BlockModel.query(transaction).insert({
      channelId,
      sequence,
      firstIndex: first,
      count: part.length,
      values: bytesOf(part),
      times: times === null ? null : bytesOf(times.subarray(first, first + blockReadings)),
    });
  }
}

/** Joins the small blocks of a recording into large ones; readers see either all the old or all the new ones. */
export async function joinBlocks(channelId: number): Promise<void> {
  await BlockModel.transaction(async (transaction) => {
    const blocks = await BlockModel.query(transaction)
      .where({ channelId })
      .orderBy('sequence')
      .select('values');
    if (blocks.length < 2) return;
    const joined = Buffer.concat(blocks.map((block) => block.values));
    await BlockModel.query(transaction).where({ channelId }).delete();
    const aligned = new Float64Array(
      joined.buffer.slice(joined.byteOffset, joined.byteOffset + joined.byteLength),
    );
    await writeSamples(channelId, aligned, null, transaction);
  });
}
