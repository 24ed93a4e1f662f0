import { Growing } from '../series/growing';

/** Numbers in a row, wherever they lie: in memory, or in a file that is read part by part. An array of them is one. */
export interface Numbers {
  readonly length: number;
  /** Those from an index on up to another one, fewer where there are no more. */
  subarray(from: number, to: number): Float64Array;
}

/** A place to which numbers are written in their order. */
export interface NumberSink {
  /** The values stand there only until it returns. */
  append(values: Float64Array): void;
  /** What was written. */
  numbers(): Numbers;
}

/** Makes such places. */
export type NumberStore = () => NumberSink;

export const inMemory: NumberStore = () => {
  const all = new Growing(0);
  return { append: (values) => all.push(values), numbers: () => all.view() };
};

/** Numbers are gone through so many at a time. */
const partLength = 65_536;

/** Numbers part by part, each with the index of its first. */
export function* partsOf(numbers: Numbers): Generator<{ first: number; values: Float64Array }> {
  for (let first = 0; first < numbers.length; first += partLength)
    yield { first, values: numbers.subarray(first, Math.min(first + partLength, numbers.length)) };
}

/** The first so many of some numbers. */
export const headOf = (numbers: Numbers, count: number): Numbers =>
  count >= numbers.length
    ? numbers
    : {
        length: Math.max(count, 0),
        subarray: (from, to) => numbers.subarray(from, Math.min(to, Math.max(count, 0))),
      };

/** Numbers times a factor. */
export const scaledBy = (numbers: Numbers, factor: number): Numbers =>
  factor === 1
    ? numbers
    : {
        length: numbers.length,
        subarray: (from, to) => numbers.subarray(from, to).map((value) => value * factor),
      };

/** All of them at once; only for what fits into memory. */
export const arrayOf = (numbers: Numbers): Float64Array => numbers.subarray(0, numbers.length);

/** How many are left when those that are missing at the end are not counted. */
export function filledCount(numbers: Numbers): number {
  for (let to = numbers.length; to > 0; to -= partLength) {
    const from = Math.max(to - partLength, 0);
    const values = numbers.subarray(from, to);
    for (let i = values.length - 1; i >= 0; i--) if (!Number.isNaN(values[i])) return from + i + 1;
  }
  return 0;
}
