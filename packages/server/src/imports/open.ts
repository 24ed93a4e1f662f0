import { type Import, type ImportAnswer } from '@heuristor/contracts';
import { type ReadAnswer } from './task';

/** A file that is being brought in, as the process knows it that reads it. */
export interface Open {
  id: string;
  /** Who brings it in. */
  owner: string;
  investigationId: string;
  name: string;
  /** The file, and what was read of it: both go with it. */
  file: string;
  numbers: string;
  /** The zone of the clock of whoever brought it. */
  zone: string;
  state: Import['state'];
  answer: Extract<ReadAnswer, { kind: 'read' }> | null;
  /** What was decided about it. */
  choices: ImportAnswer;
  abort: AbortController;
}

/** Where the columns of a file lie while it is read. */
export const scratchOf = ({ file }: Open) => `${file}.columns`;

/** A file as whoever brings it in sees it. */
export const presented = ({ id, name, state }: Open): Import => ({ id, name, state });

/** What a file holds, before anything of it is stored. */
export function readyState(
  {
    encoding,
    separator,
    decimal,
    rows,
    skipped,
    layout,
    columns,
    runs,
  }: Extract<ReadAnswer, { kind: 'read' }>,
  name: string,
): Import['state'] {
  return {
    kind: 'ready',
    encoding,
    separator,
    decimal,
    rows,
    skipped,
    layout,
    columns,
    runs: runs.map((run) => ({
      name: run.name ?? name,
      begins: run.begins,
      since: run.since,
      channels: run.channels.map(({ name: channel, unit, timeUnit, sampling, values, first }) => ({
        name: channel,
        unit,
        count: values.count,
        against:
          timeUnit === '1'
            ? 'number of the reading'
            : sampling.kind === 'regular'
              ? `time, every ${Number(sampling.interval.toPrecision(6))} s`
              : 'time, irregular',
        first: first.map((value) => (Number.isNaN(value) ? null : value)),
      })),
    })),
  };
}
