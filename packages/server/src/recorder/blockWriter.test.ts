import { pino } from 'pino';
import { type Database, openDatabase } from '../database';
import { allSamples, findChannel, joinBlocks, readSamples } from '../services/samples';
import { BlockModel } from '../models/block';
import { newChannel } from '../testing/newChannel';
import { newDatabase } from '../testing/testServer';
import { wayTo } from '../testing/wayTo';
import { BlockWriter } from './blockWriter';

let address: string;
let database: Database;
/** Binds the models to the database itself, past any way that lay before it. */
const openAgain = async () => {
  database = await openDatabase(address);
};
beforeAll(async () => {
  address = await newDatabase();
  await openAgain();
});
afterAll(() => database.close());

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const silent = pino({ level: 'silent' });
const numbers = (first: number, count: number) => Float64Array.from({ length: count }, (_, i) => first + i);

test('a commit whose answer got lost neither blocks what comes nor stores anything twice', async () => {
  const way = await wayTo(address);
  const lossy = await openDatabase(way.address);
  const id = await newChannel();
  const waiting: boolean[] = [];
  const writer = new BlockWriter(lossy.storage, silent, (now) => waiting.push(now));
  writer.open(id);
  writer.append(id, { firstIndex: 0, values: numbers(0, 3), times: null });
  expect(await writer.flush()).toBe(true);
  const swallowed = way.swallow();
  writer.append(id, { firstIndex: 3, values: numbers(3, 7), times: null });
  const lost = writer.flush();
  await swallowed;
  await pause(300);
  way.mend();
  // Whether it failed itself or had waited for one that failed, which the writer's own timer began: the loss was noticed.
  await lost;
  expect(waiting[0]).toBe(true);
  // The readings are there; the writer does not know it, and goes on all the same.
  writer.append(id, { firstIndex: 10, values: numbers(10, 5), times: null });
  expect(await writer.flush()).toBe(true);
  writer.close();
  expect(waiting).toEqual([true, false]);
  await lossy.close();
  way.close();
  await openAgain();
  expect([...(await allSamples(await findChannel(id), 'values'))]).toEqual([...numbers(0, 15)]);
});

test('holes stay holes: blocks jump over them, readers see missing readings, joining keeps them', async () => {
  const id = await newChannel();
  const writer = new BlockWriter(database.storage, silent, () => undefined);
  writer.open(id);
  for (const first of [0, 5, 200_000, 200_003])
    writer.append(id, { firstIndex: first, values: numbers(first, 3), times: null });
  expect(await writer.flush()).toBe(true);
  writer.append(id, { firstIndex: 200_006, values: numbers(200_006, 3), times: null });
  await writer.flush();
  writer.close();
  const check = async () => {
    const values = await allSamples(await findChannel(id), 'values');
    expect(values).toHaveLength(200_009);
    expect([...values.subarray(0, 9)]).toEqual([0, 1, 2, NaN, NaN, 5, 6, 7, NaN]);
    expect(values[199_999]).toBeNaN();
    expect([...values.subarray(200_000)]).toEqual([...numbers(200_000, 9)]);
  };
  await check();
  await joinBlocks(id);
  await check();
  expect(await BlockModel.query().where({ channelId: id }).resultSize()).toBe(3);
});

test('joining blocks keeps the times of irregular readings with them', async () => {
  const id = await newChannel('timed');
  const writer = new BlockWriter(database.storage, silent, () => undefined);
  writer.open(id);
  for (let part = 0; part < 20; part++) {
    writer.append(id, {
      firstIndex: part * 3,
      values: numbers(part * 3, 3),
      times: numbers(part * 3, 3).map((i) => i + 0.25),
    });
    await writer.flush();
  }
  writer.close();
  await joinBlocks(id);
  const channel = await findChannel(id);
  expect([...(await allSamples(channel, 'values'))]).toEqual([...numbers(0, 60)]);
  expect([...(await allSamples(channel, 'times'))]).toEqual([...numbers(0, 60)].map((i) => i + 0.25));
  expect(await BlockModel.query().where({ channelId: id }).resultSize()).toBe(1);
});

test('readings are given from any index on', async () => {
  const id = await newChannel();
  const writer = new BlockWriter(database.storage, silent, () => undefined);
  writer.open(id);
  for (let part = 0; part < 10; part++) {
    writer.append(id, { firstIndex: part * 7, values: numbers(part * 7, 7), times: null });
    await writer.flush();
  }
  writer.close();
  const channel = await findChannel(id);
  for (const from of [0, 1, 6, 7, 40, 69, 70, 500]) {
    const parts: Buffer[] = [];
    for await (const part of readSamples(channel, 'values', from)) parts.push(part);
    const bytes = Buffer.concat(parts);
    expect(bytes.length).toBe(Math.max(70 - from, 0) * 8);
    if (from < 70) expect(bytes.readDoubleLE(0)).toBe(from);
  }
});

test('more readings than the memory should hold are refused rather than taken', async () => {
  const id = await newChannel();
  const writer = new BlockWriter(database.storage, silent, () => undefined);
  writer.open(id);
  const large = new Float64Array(15_000_000);
  expect(writer.append(id, { firstIndex: 0, values: large, times: null })).toBe(true);
  expect(writer.append(id, { firstIndex: large.length, values: large, times: null })).toBe(false);
  expect(writer.append(99_999_999, { firstIndex: 0, values: numbers(0, 1), times: null })).toBe(false);
  writer.forget([id]);
  writer.close();
});
