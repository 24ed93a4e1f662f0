import { normalRandom } from '@heuristor/core';
import { type Database, openDatabase } from '../database';
import { BlockModel } from '../models/block';
import { newChannel } from '../testing/newChannel';
import { newDatabase } from '../testing/testServer';
import {
  allSamples,
  bytesOf,
  findChannel,
  giveRoomBack,
  joinBlocks,
  numbersOf,
  readSamples,
  writeSamples,
} from './samples';

let database: Database;
beforeAll(async () => {
  database = await openDatabase(await newDatabase());
});
afterAll(() => database.close());

const numbers = (first: number, count: number) => Float64Array.from({ length: count }, (_, i) => first + i);

/** Blocks as a recording leaves them: each with the place of its first reading and how many it holds. */
async function store(
  channelId: number,
  blocks: readonly [firstIndex: number, count: number][],
  timed = false,
) {
  for (const [sequence, [firstIndex, count]] of blocks.entries())
    await BlockModel.query().insert({
      channelId,
      sequence,
      firstIndex,
      count,
      values: bytesOf(numbers(firstIndex, count)),
      times: timed ? bytesOf(numbers(firstIndex, count).map((i) => i / 1000)) : null,
    });
}

const blocksOf = (channelId: number) =>
  BlockModel.query().where({ channelId }).orderBy('sequence').select('sequence', 'firstIndex', 'count');

const smallBlocks = (count: number, length: number) =>
  Array.from({ length: count }, (_, i): [number, number] => [i * length, length]);

describe('a reader', () => {
  test.each([1, 2, 5, 9])(
    'who is through %i pieces when the blocks are joined under it misses nothing and has nothing twice',
    async (pieces) => {
      const id = await newChannel();
      await store(id, smallBlocks(23, 7));
      const parts: Buffer[] = [];
      const reading = readSamples(await findChannel(id), 'values');
      for (let i = 0; i < pieces; i++) parts.push((await reading.next()).value as Buffer);
      await joinBlocks(id);
      for await (const part of reading) parts.push(part);
      expect([...numbersOf(Buffer.concat(parts))]).toEqual([...numbers(0, 161)]);
    },
  );

  test('and joins at every moment at once: each sees the same readings', async () => {
    const id = await newChannel();
    await store(id, smallBlocks(60, 11));
    const channel = await findChannel(id);
    const readers = Array.from({ length: 6 }, () => allSamples(channel, 'values'));
    const joins = [joinBlocks(id), joinBlocks(id)];
    for (const values of await Promise.all(readers)) expect([...values]).toEqual([...numbers(0, 660)]);
    await Promise.all(joins);
    expect(await blocksOf(id)).toHaveLength(1);
  });

  test.each([0, 6, 7, 8, 20, 159, 161, 500])('from reading %i on has the rest', async (from) => {
    const id = await newChannel();
    await store(id, smallBlocks(23, 7));
    const rest: Buffer[] = [];
    for await (const part of readSamples(await findChannel(id), 'values', from)) rest.push(part);
    expect([...numbersOf(Buffer.concat(rest))]).toEqual([...numbers(0, 161)].slice(from));
  });

  test('sees holes between blocks as missing readings, also from within one', async () => {
    const id = await newChannel();
    await store(id, [
      [0, 3],
      [5, 2],
      [9, 1],
    ]);
    const channel = await findChannel(id);
    expect([...(await allSamples(channel, 'values'))]).toEqual([0, 1, 2, NaN, NaN, 5, 6, NaN, NaN, 9]);
    const rest: Buffer[] = [];
    for await (const part of readSamples(channel, 'values', 4)) rest.push(part);
    expect([...numbersOf(Buffer.concat(rest))]).toEqual([NaN, 5, 6, NaN, NaN, 9]);
  });

  test('of a channel without times of its own is told so', async () => {
    const channel = await findChannel(await newChannel());
    await expect(allSamples(channel, 'times')).rejects.toThrow('sampled regularly');
    await expect(findChannel(987_654)).rejects.toThrow('no such channel');
  });
});

describe('joining', () => {
  test('keeps holes, and times with their readings', async () => {
    const id = await newChannel('timed');
    await store(
      id,
      [
        [0, 4],
        [4, 4],
        [10, 4],
        [14, 1],
      ],
      true,
    );
    await joinBlocks(id);
    expect(await blocksOf(id)).toMatchObject([
      { sequence: 0, firstIndex: 0, count: 8 },
      { sequence: 2, firstIndex: 10, count: 5 },
    ]);
    const channel = await findChannel(id);
    const times = await allSamples(channel, 'times');
    const values = await allSamples(channel, 'values');
    values.forEach((value, i) => {
      if (!Number.isNaN(value)) expect(times[i]).toBeCloseTo(value / 1000, 12);
    });
    expect(times).toHaveLength(values.length);
  });

  test('makes no block longer than 65 536 readings, and changes nothing the second time', async () => {
    const id = await newChannel();
    await store(id, smallBlocks(7, 20_000));
    await joinBlocks(id);
    const blocks = await blocksOf(id);
    expect(blocks.map(({ count }) => count)).toEqual([60_000, 60_000, 20_000]);
    await joinBlocks(id);
    expect(await blocksOf(id)).toEqual(blocks);
    expect(await allSamples(await findChannel(id), 'values')).toEqual(numbers(0, 140_000));
  });

  test('of nothing, and of one block, is nothing', async () => {
    const id = await newChannel();
    await joinBlocks(id);
    expect(await blocksOf(id)).toEqual([]);
    await store(id, [[0, 5]]);
    await joinBlocks(id);
    expect(await blocksOf(id)).toHaveLength(1);
  });
});

test('a whole channel is stored in large blocks and comes back bit by bit, odd numbers too', async () => {
  const id = await newChannel('timed');
  const values = numbers(0, 140_001).map((i) =>
    i === 70_000 ? NaN : i === 70_001 ? -0 : Math.sin(i) * 1e-310,
  );
  const times = numbers(0, 140_001).map((i) => i * 1e-5);
  await writeSamples(id, values, times);
  expect((await blocksOf(id)).map(({ count }) => count)).toEqual([65_536, 65_536, 8929]);
  const channel = await findChannel(id);
  expect(bytesOf(await allSamples(channel, 'values')).equals(bytesOf(values))).toBe(true);
  expect(bytesOf(await allSamples(channel, 'times')).equals(bytesOf(times))).toBe(true);
});

test('run after run, a reading takes about the eight bytes that it has, though it was written in small blocks first', async () => {
  const random = normalRandom(31);
  const [readings, inBlock, runs] = [30_000, 100, 12];
  const sizeOf = async () => {
    const { rows } = await BlockModel.knex().raw<{ rows: { size: string }[] }>(
      `select pg_total_relation_size('block') as size`,
    );
    return Number(rows[0].size);
  };
  const record = async () => {
    const channelId = await newChannel();
    for (let first = 0; first < readings; first += inBlock)
      await BlockModel.query().insert({
        channelId,
        sequence: first / inBlock,
        firstIndex: first,
        count: inBlock,
        values: bytesOf(Float64Array.from({ length: inBlock }, () => random())),
        times: null,
      });
    await joinBlocks(channelId);
    await giveRoomBack();
  };
  await record();
  await record();
  const before = await sizeOf();
  for (let run = 0; run < runs; run++) await record();
  const bytes = ((await sizeOf()) - before) / (runs * readings);

  expect(bytes).toBeLessThan(9);
}, 60_000);
