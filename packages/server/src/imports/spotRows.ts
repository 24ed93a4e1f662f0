import { type GivenCells, type Spot, type SpotColumn } from '@heuristor/contracts';
import { type Numbers, arrayOf } from '@heuristor/core';
import { Failure } from '../failure';
import { type FilePlace } from './numberFile';
import { type ReadChannel } from './task';

const longestKey = 16;

/** The columns of a series whose readings come from the rows of a file. @throws Failure where a name is too long for one */
export function spotsOf(channels: readonly ReadChannel[]): Omit<Spot, 'rows'> {
  const columns = channels.map(({ name, unit }): SpotColumn => {
    if (name in Object.prototype)
      throw new Failure('invalid-request', `A column cannot be called “${name}”. Rename it in the preview.`);
    if (name.length > longestKey)
      throw new Failure(
        'invalid-request',
        `“${name}” is too long for a column of spot readings. Give it at most ${longestKey} letters in the preview.`,
      );
    return { kind: 'typed', key: name, name, unit, offset: 0, output: null };
  });
  return { seconds: 1, columns };
}

/** One reading a row; a missing cell is none. */
export function rowsOf(
  channels: readonly ReadChannel[],
  numbers: (place: FilePlace) => Numbers,
): GivenCells[] {
  const columns = channels.map(({ name, values }) => ({ name, values: arrayOf(numbers(values)) }));
  return Array.from({ length: columns[0]?.values.length ?? 0 }, (_, row) =>
    Object.fromEntries(
      columns.flatMap(({ name, values }) =>
        Number.isNaN(values[row]) ? [] : [[name, { typed: values[row] }] as const],
      ),
    ),
  );
}
