import { Refusal } from '../refusal';
import { type Sampling } from '../series/sampling';
import { conversionFactor, isTimeUnit } from '../units/conversion';
import { type Unit, one, parseUnit } from '../units/unit';
import { timeOfDay } from './clock';
import { type Column } from './columns';
import { type Numbers, filledCount, headOf, partsOf, scaledBy } from './numbers';
import { type Table } from './readTable';

/** A channel of a run that comes from a file. */
export interface ImportedChannel {
  name: string;
  unit: Unit;
  timeUnit: Unit;
  sampling: ImportedSampling;
  values: Numbers;
}

/** When the readings of a column were taken. */
export type ImportedSampling =
  Extract<Sampling, { kind: 'regular' }> | { readonly kind: 'timed'; readonly times: Numbers };

export interface ImportedRun {
  /** The name that headings gave it; null where they did not. */
  name: string | null;
  channels: ImportedChannel[];
  /** When its first reading was taken, where the file says it, in ISO 8601. */
  begins?: string;
  /** What a clock showed at its first reading, where the file tells no date: “10:15:30”. */
  since?: string;
}

const second = parseUnit('s');

/** What the readings of a table are taken against, as somebody has decided it. Columns are counted from 0. */
export interface TableLayout {
  axis:
    | { kind: 'as-read' }
    /** This column is the time. */
    | { kind: 'column'; column: number }
    /** There is no time in it: so many rows a second. */
    | { kind: 'rate'; hertz: number };
  /** Columns that nobody wants. */
  without: readonly number[];
}

/**
 * The runs that a table holds when somebody has said what its readings are taken against.
 * @throws Refusal where a time is missing or does not ascend, or where nothing is left
 */
export function runsOfLaidOut(table: Table, { axis, without }: TableLayout): ImportedRun[] {
  const wanted = table.columns.filter((_, i) => !without.includes(i));
  if (axis.kind === 'as-read') {
    if (wanted.length === 0) throw new Refusal('No column is left. Choose at least one.');
    return runsOfTable({ ...table, columns: wanted });
  }
  const time = axis.kind === 'column' ? table.columns[axis.column] : null;
  const rest = wanted.filter((column) => column !== time);
  if (rest.length === 0) throw new Refusal('No column is left beside the time. Choose at least one.');
  if (axis.kind === 'rate' || time === null || time === undefined) {
    const hertz = axis.kind === 'rate' ? axis.hertz : 1;
    return [
      {
        name: null,
        channels: rest.map(({ name, unit, values }) => ({
          name,
          unit,
          timeUnit: second,
          sampling: regular(0, 1 / hertz, values.length),
          values,
        })),
      },
    ];
  }
  // A time without a unit is in seconds.
  const named = isTimeUnit(time.unit) ? time : { ...time, unit: second };
  return [{ name: null, channels: alongFirst([named, ...rest]), ...beginOf([time]) }];
}

/** When the readings of some columns began, where their time says it. */
function beginOf([{ clock }]: readonly Column[]): Pick<ImportedRun, 'begins' | 'since'> {
  const { begins = null, since = null } = clock ?? {};
  return {
    ...(begins === null ? {} : { begins }),
    ...(since === null ? {} : { since: timeOfDay(since) }),
  };
}

/** The columns after the first one against it; another time among them is a quantity like others. */
function alongFirst([time, ...rest]: readonly Column[]): ImportedChannel[] {
  const count = filledLength(time, [time, ...rest]);
  const sampling = samplingOf(time, count);
  return rest.map(({ name, unit, values }) => ({
    name,
    unit,
    timeUnit: second,
    sampling,
    values: headOf(values, count),
  }));
}

/**
 * The runs that a table holds. A first column measured in a unit of time is the time of the columns after it, in seconds;
 * another column of the same name begins a time of its own; without one the readings are numbered from 1. Headings that all
 * begin with a name and a colon ("soft: x / m") are several runs side by side, as Heuristor writes them. Rows that only
 * lengthen a shorter run to the length of a longer one are left out.
 * @throws Refusal where a time is missing or does not ascend
 */
export function runsOfTable({ columns }: Table): ImportedRun[] {
  const parts = columns.map(({ name }) => /^(.+?): (.+)$/.exec(name));
  if (!parts.every((match) => match !== null))
    return [{ name: null, channels: channelsOf(columns), ...beginOf(columns) }];
  const runs = new Map<string, Column[]>();
  columns.forEach((column, i) => {
    const [, run, name] = parts[i] ?? ['', '', column.name];
    runs.set(run, [...(runs.get(run) ?? []), { ...column, name }]);
  });
  return [...runs].map(([name, own]) => ({ name, channels: channelsOf(own), ...beginOf(own) }));
}

function channelsOf(columns: readonly Column[]): ImportedChannel[] {
  const [first] = columns;
  const hasTime = columns.length > 1 && isTimeUnit(first.unit);
  const isTime = (column: Column, i: number) =>
    hasTime && isTimeUnit(column.unit) && (i === 0 || column.name.replace(/ \(\d+\)$/, '') === first.name);
  const channels: ImportedChannel[] = [];
  let axis: { sampling: ImportedSampling; count: number; unit: Unit } | null = null;
  columns.forEach((column, i) => {
    if (isTime(column, i)) {
      const count = filledLength(column, columns);
      axis = { sampling: samplingOf(column, count), count, unit: second };
      return;
    }
    const here: { sampling: ImportedSampling; count: number; unit: Unit } = axis ?? {
      sampling: regular(1, 1, column.values.length),
      count: column.values.length,
      unit: one,
    };
    channels.push({
      name: column.name,
      unit: column.unit,
      timeUnit: here.unit,
      sampling: here.sampling,
      values: headOf(column.values, here.count),
    });
  });
  return channels;
}

/** Length of a time column without the empty cells that pad it, where nothing stands beside them either. */
function filledLength(time: Column, columns: readonly Column[]): number {
  const count = filledCount(time.values);
  const after = columns.slice(columns.indexOf(time) + 1);
  const next = after.findIndex(
    ({ name }) => name.replace(/ \(\d+\)$/, '') === time.name.replace(/ \(\d+\)$/, ''),
  );
  const beside = next < 0 ? after : after.slice(0, next);
  return beside.some(({ values }) => filledCount(values) > count) ? time.values.length : count;
}

function samplingOf({ values, unit }: Column, count: number): ImportedSampling {
  const times = scaledBy(headOf(values, count), conversionFactor(unit, second));
  let before = -Infinity;
  for (const { first, values: part } of partsOf(times))
    for (let i = 0; i < part.length; i++) {
      if (Number.isNaN(part[i]))
        throw new Refusal(`The time in reading ${first + i + 1} is missing. Every reading needs its time.`);
      if (part[i] <= before)
        throw new Refusal(
          `The time in reading ${first + i + 1} is not after the one before it. Sort the rows by time.`,
        );
      before = part[i];
    }
  const interval = regularInterval(times);
  return interval === null ? { kind: 'timed', times } : regular(times.subarray(0, 1)[0], interval, count);
}

const regular = (start: number, interval: number, count: number): ImportedSampling => ({
  kind: 'regular',
  start,
  interval,
  count,
});

/** The spacing of times that are regular to a millionth of it, else null. */
export function regularInterval(times: Numbers): number | null {
  const { length } = times;
  if (length < 2) return null;
  const [start] = times.subarray(0, 1);
  const interval = (times.subarray(length - 1, length)[0] - start) / (length - 1);
  for (const { first, values } of partsOf(times))
    for (let i = 0; i < values.length; i++)
      if (Math.abs(values[i] - start - (first + i) * interval) > 1e-6 * interval) return null;
  return interval;
}
