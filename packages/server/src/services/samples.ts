import { type Numbers } from '@heuristor/core';
import { type Transaction, raw } from 'objection';
import { Failure } from '../failure';
import { BlockModel } from '../models/block';
import { ChannelModel } from '../models/channel';

const blockReadings = 65_536;
/** Blocks are read and joined a few at a time, so that no run, however long, fills the memory. */
const blocksAtOnce = 4;

export const bytesOf = ({ buffer, byteOffset, byteLength }: Float64Array): Buffer =>
  Buffer.from(buffer, byteOffset, byteLength);

/** Bytes as numbers, wherever they lie. */
export function numbersOf(bytes: Buffer): Float64Array {
  const aligned = new Float64Array(bytes.length / 8);
  Buffer.from(aligned.buffer).set(bytes);
  return aligned;
}

/** A channel that is there. @throws Failure */
export async function findChannel(id: number): Promise<ChannelModel> {
  const channel = await ChannelModel.query().findById(id);
  if (channel === undefined) throw new Failure('not-found', 'There is no such channel.');
  return channel;
}

/**
 * Stored readings (or times) of a channel from an index on, piece by piece as float64, little endian; readings that are missing
 * between blocks are NaN.
 * @throws Failure for the times of a channel that has none of its own
 */
export async function* readSamples(
  channel: ChannelModel,
  what: 'values' | 'times',
  from = 0,
): AsyncGenerator<Buffer> {
  if (what === 'times' && channel.sampling.kind === 'regular')
    throw new Failure(
      'not-found',
      'This channel is sampled regularly; its times follow from start and interval.',
    );
  let next = from;
  let last = 0;
  for (;;) {
    // The block that was read last may have been joined with others meanwhile, under the lowest of their numbers: it is looked at
    // again for what it holds beyond.
    const again = BlockModel.query()
      .where({ channelId: channel.id })
      .where('sequence', '<=', last)
      .max('sequence');
    const blocks = await BlockModel.query()
      .where({ channelId: channel.id })
      .where('sequence', '>=', raw('coalesce(?, 0)', [again]))
      .whereRaw('"firstIndex" + count > ?', [next])
      .orderBy('sequence')
      .limit(blocksAtOnce)
      .select('sequence', 'firstIndex', 'count')
      // The database would write bytes as hexadecimal digits, twice as long, which takes half as long again to read.
      .select(raw("encode(??, 'base64')", [what]).as('digits'))
      .castTo<(Pick<BlockModel, 'sequence' | 'firstIndex' | 'count'> & { digits: string | null })[]>();
    if (blocks.length === 0) return;
    for (const block of blocks) {
      last = block.sequence;
      for (let hole = block.firstIndex - next; hole > 0;) {
        const part = Math.min(hole, blockReadings);
        yield bytesOf(new Float64Array(part).fill(NaN));
        hole -= part;
        next += part;
      }
      const skipped = Math.max(next - block.firstIndex, 0);
      const bytes = Buffer.from(block.digits ?? '', 'base64');
      yield skipped === 0 ? bytes : bytes.subarray(skipped * 8);
      next = block.firstIndex + block.count;
    }
  }
}

/** All readings of a channel at once, or the first ones. @param most so many at least, where there are more */
export async function allSamples(
  channel: ChannelModel,
  what: 'values' | 'times',
  most = Infinity,
): Promise<Float64Array> {
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of readSamples(channel, what)) {
    parts.push(part);
    bytes += part.length;
    if (bytes >= 8 * most) break;
  }
  return numbersOf(Buffer.concat(parts));
}

/** How many readings of each channel are stored. */
export async function lengthsOf(channelIds: readonly number[]): Promise<number[]> {
  const rows = await BlockModel.query()
    .whereIn('channelId', [...channelIds])
    .groupBy('channelId')
    .select('channelId', raw('max("firstIndex" + count)::int').as('length'))
    .castTo<{ channelId: number; length: number }[]>();
  const byId = new Map(rows.map(({ channelId, length }) => [channelId, length]));
  return channelIds.map((id) => byId.get(id) ?? 0);
}

/** Stores a whole channel in large blocks, which are read from where its numbers lie as they are stored. */
export async function writeSamples(
  channelId: number,
  values: Numbers,
  times: Numbers | null,
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

type Stored = Pick<BlockModel, 'sequence' | 'firstIndex' | 'count' | 'values' | 'times'>;

/**
 * Joins the small blocks of a recording into large ones, a part at a time; readers see either all the old or all the new
 * ones of a part. Holes between blocks stay holes, and times stay with their readings.
 */
export async function joinBlocks(channelId: number): Promise<void> {
  let after = -1;
  for (;;) {
    const blocks = await BlockModel.query()
      .where({ channelId })
      .where('sequence', '>', after)
      .orderBy('sequence')
      .limit(2000)
      .select('sequence', 'firstIndex', 'count');
    if (blocks.length === 0) return;
    const group = blocks.slice(0, groupLength(blocks));
    after = group[group.length - 1].sequence;
    if (group.length > 1) await joinGroup(channelId, group[0].sequence, after);
  }
}

/**
 * Gives back the room of blocks that were joined, so that the next run is written where they lay. PostgreSQL does so by itself now
 * and then; a run after a run is quicker than that, and a reading of eight bytes would take sixteen.
 */
export async function giveRoomBack(): Promise<void> {
  await BlockModel.knex().raw('vacuum (skip_locked) block');
}

/** How many of the first blocks follow on each other and fit into one. */
function groupLength(blocks: readonly Pick<Stored, 'firstIndex' | 'count'>[]): number {
  let { count } = blocks[0];
  let length = 1;
  while (length < blocks.length) {
    const block = blocks[length];
    if (block.firstIndex !== blocks[0].firstIndex + count || count + block.count > blockReadings) break;
    count += block.count;
    length++;
  }
  return length;
}

async function joinGroup(channelId: number, from: number, to: number): Promise<void> {
  await BlockModel.transaction(async (transaction) => {
    const range = () =>
      BlockModel.query(transaction).where({ channelId }).whereBetween('sequence', [from, to]);
    const blocks = await range().orderBy('sequence').forUpdate();
    if (blocks.length < 2) return;
    const [{ firstIndex }] = blocks;
    const isTimed = blocks.every(({ times }) => times !== null);
    await range().delete();
    await BlockModel.query(transaction).insert({
      channelId,
      sequence: from,
      firstIndex,
      count: blocks.reduce((sum, { count }) => sum + count, 0),
      values: Buffer.concat(blocks.map(({ values }) => values)),
      times: isTimed ? Buffer.concat(blocks.map(({ times }) => times ?? Buffer.alloc(0))) : null,
    });
  });
}
