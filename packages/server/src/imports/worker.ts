// Types alone: the thread that reads files does not load what lies behind them.
import type { ImportLayout } from '@heuristor/contracts';
import {
  type ImportedChannel,
  type ImportedRun,
  Refusal,
  type Separator,
  type Numbers,
  type Table,
  readTable,
  runsOfLaidOut,
  separators,
  ucumCode,
} from '@heuristor/core/tables';
import { rmSync } from 'node:fs';
import { textOfFile } from './fileText';
import { type FilePlace, NumberFileWriter } from './numberFile';
import { type ReadAnswer, type ReadChannel, type ReadTask } from './task';

const reportMilliseconds = 100;
const previewRows = 5;

/** Reads a file of columns, on a thread of its own: the thread that records has better things to do. */
export default function read({
  file,
  scratch,
  numbers,
  zone,
  choices,
  mostSpotRows,
  port,
}: ReadTask): ReadAnswer {
  const files: NumberFileWriter[] = [];
  const written = (path: string) => {
    files.push(new NumberFileWriter(path));
    return files[files.length - 1];
  };
  try {
    const text = textOfFile(file);
    const { encoding } = text;
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
      written(scratch).store,
    );
    if (reading.kind === 'question') return { kind: 'question', example: reading.example, encoding };
    const { table, blocks, skipped } = reading;
    const runs = blocks.flatMap(({ title, table: own }) =>
      runsIn(own, layout, mostSpotRows).map((run) => ({ ...run, name: run.name ?? title })),
    );
    const out = written(numbers);
    // Channels that share their times have them in one place.
    const places = new Map<Numbers, FilePlace>();
    const place = (column: Numbers): FilePlace => {
      const known = places.get(column) ?? out.write(column);
      places.set(column, known);
      return known;
    };
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
        channels: channels.map((channel) => handedOver(channel, place)),
      })),
    };
  } catch (error) {
    if (error instanceof Refusal) return { kind: 'refused', sentence: error.message };
    if (error instanceof Error && 'code' in error && error.code === 'ENOSPC')
      return {
        kind: 'refused',
        sentence:
          'There is no room left on the disk to read this file. Make room on the computer that Heuristor runs on, and choose it again.',
      };
    throw error;
  } finally {
    for (const open of files) open.close();
    rmSync(scratch, { force: true });
    port.close();
  }
}

const signOf = (name: string | undefined) =>
  (Object.keys(separators) as Separator[]).find((sign) => separators[sign] === name);

/** Spot readings are numbered like readings without a time; what they become is decided where they are stored. */
const runsIn = (table: Table, { axis, without }: ImportLayout, mostSpotRows: number): ImportedRun[] =>
  axis.kind === 'spots'
    ? [
        {
          name: null,
          channels: spotChannels(
            table.columns.filter((_, i) => !without.includes(i)),
            mostSpotRows,
          ),
        },
      ]
    : runsOfLaidOut(table, { axis, without });

function spotChannels(columns: Table['columns'], mostSpotRows: number): ImportedChannel[] {
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
    sampling: { kind: 'regular' as const, start: 1, interval: 1, count: rows },
    values,
  }));
}

function handedOver(
  { name, unit, timeUnit, sampling, values }: ImportedChannel,
  place: (column: Numbers) => FilePlace,
): ReadChannel {
  return {
    name,
    unit: ucumCode(unit),
    timeUnit: ucumCode(timeUnit),
    sampling:
      sampling.kind === 'regular'
        ? { kind: 'regular', start: sampling.start, interval: sampling.interval }
        : { kind: 'timed' },
    values: place(values),
    times: sampling.kind === 'regular' ? null : place(sampling.times),
    first: [...values.subarray(0, previewRows)],
  };
}
