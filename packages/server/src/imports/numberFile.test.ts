import { type Numbers, arrayOf } from '@heuristor/core';
import { closeSync, mkdtempSync, openSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NumberFileWriter, numbersAt } from './numberFile';

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'heuristor-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('columns that are written in turn are each read as one, from any place to any other', () => {
  const file = new NumberFileWriter(join(folder, 'columns'));
  const [a, b] = [file.store(), file.store()];
  for (let i = 0; i < 50; i++) {
    a.append(Float64Array.from({ length: i % 7 }, (_, k) => i + k / 10));
    b.append(Float64Array.of(-i, NaN));
  }
  const truth = Array.from({ length: 50 }, (_, i) =>
    Array.from({ length: i % 7 }, (_one, k) => i + k / 10),
  ).flat();
  const column: Numbers = a.numbers();
  expect(column).toHaveLength(truth.length);
  expect([...arrayOf(column)]).toEqual(truth);
  for (const [from, to] of [
    [0, 1],
    [3, 40],
    [truth.length - 5, truth.length + 10],
    [20, 20],
  ])
    expect([...column.subarray(from, to)]).toEqual(truth.slice(from, to));
  expect([...b.numbers().subarray(2, 5)]).toEqual([-1, NaN, -2]);
  const place = file.write(column);
  file.close();
  const descriptor = openSync(join(folder, 'columns'), 'r');
  expect([...arrayOf(numbersAt(descriptor, place))]).toEqual(truth);
  // What was cut off is said, and not read as zeros.
  expect(() => arrayOf(numbersAt(descriptor, { ...place, count: place.count + 1 }))).toThrow(
    'not there any more',
  );
  closeSync(descriptor);
});
