import { type ImportLayout, mostSpotRows } from '@heuristor/contracts';
import {
  type ImportedChannel,
  type ImportedRun,
  Refusal,
  type Separator,
  type Table,
  decodeText,
  readTable,
  regular,
  runsOfLaidOut,
  separators,
  ucumCode,
} from '@heuristor/core';
import { readFileSync } from 'node:fs';
import { type ReadAnswer, type ReadChannel, type ReadTask } from './task';

const reportMilliseconds = 100;

/** Reads a file of columns, on a thread of its own: the thread that records has better things to do. */
export default function read({ file, zone, choices, port }: ReadTask): ReadAnswer {
  try {
    const { text, encoding } = decodeText(readFileSync(file));
    let reported = 0;
    const progress = (share: number) => {
      if (Date.now() - reported < reportMilliseconds) return;
      reported = Date.now();
      port.postMessage(share);
    };
    const { decimal, layout = { axis: { kind: 'as-read' as const }, without: [] } } = choices;
    const separator = signOf(choices.separator);
    const reading = readTable(
      text,
      {
        zone,
        ...(decimal === undefined ? {} : { decimal }),
        ...(separator === undefined ? {} : { separator }),
      },
      { progress },
    );
    if (reading.kind === 'question') return { kind: 'question', example: reading.example, encoding };
    const { table, blocks, skipped } = reading;
    const runs = blocks.flatMap(({ title, table: own }) =>
      runsIn(own, layout).map((run) => ({ ...run, name: run.name ?? title })),
    );
    return {
      kind: 'read',
      encoding,
      separator: separators[table.separator],
      decimal: table.decimal,
      rows: blocks.reduce((sum, { table: own }) => sum + own.rows, 0),
      skipped,
      layout,
      columns: table.columns.map(({ name, unit }) => ({ name, unit: ucumCode(unit) })),
      runs: runs.map(({ name, channels, begins = null, since = null }) => ({
        name,
        begins,
        since,
        channels: channels.map(handedOver),
      })),
    };
  } catch (error) {
    if (error instanceof Refusal) return { kind: 'refused', sentence: error.message };
    throw error;
  } finally {
    port.close();
  }
}

const signOf = (name: string | undefined) =>
  (Object.keys(separators) as Separator[]).find((sign) => separators[sign] === name);

/** Spot readings are numbered like readings without a time; what they become is decided where they are stored. */
const runsIn = (table: Table, { axis, without }: ImportLayout): ImportedRun[] =>
  axis.kind === 'spots'
    ? [{ name: null, channels: spotChannels(table.columns.filter((_, i) => !without.includes(i))) }]
    : runsOfLaidOut(table, { axis, without });

function spotChannels(columns: Table['columns']): ImportedChannel[] {
  if (columns.length === 0) throw new Refusal('No column is left. Choose at least one.');
  const rows = columns[0].values.length;
  if (rows > mostSpotRows)
    throw new Refusal(
      `A series of spot readings holds ${mostSpotRows} rows, and this file has ${rows}. Take them against a time, a rate, or their number.`,
    );
  return columns.map(({ name, unit, values }) => ({
    name,
    unit,
    timeUnit: [],
    sampling: regular(1, 1, rows),
    values,
  }));
}

const shared = (values: Float64Array): Float64Array => {
  const out = new Float64Array(new SharedArrayBuffer(values.byteLength));
  out.set(values);
  return out;
};

function handedOver({ name, unit, timeUnit, sampling, values }: ImportedChannel): ReadChannel {
  return {
    name,
    unit: ucumCode(unit),
    timeUnit: ucumCode(timeUnit),
    sampling:
      sampling.kind === 'regular'
        ? { kind: 'regular', start: sampling.start, interval: sampling.interval }
        : { kind: 'timed' },
    values: shared(values),
    times: sampling.kind === 'regular' ? null : shared(sampling.times),
  };
}
