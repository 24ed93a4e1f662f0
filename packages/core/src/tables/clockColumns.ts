import { parseUnit } from '../units/unit';
import { type ClockCell, timesOfClock } from './clock';
import { type Column } from './columns';

/** Cells of the columns that hold dates or times, by the number of the column. */
export type ClockColumns = Map<number, (ClockCell | null)[]>;

const second = parseUnit('s');
/** Times that were counted from a beginning of their own. */
const isElapsed = (name: string) => /elapsed|duration|run ?time|since/i.test(name);

/**
 * Columns of which those with dates or times are seconds since their first one. A date and a time of day side by side are one. The
 * time of the readings comes first.
 */
export function withClocks(columns: readonly Column[], clocks: ClockColumns, zone: string): Column[] {
  if (clocks.size === 0) return [...columns];
  const made: Column[] = [];
  const rest: Column[] = [];
  for (let c = 0; c < columns.length; c++) {
    const cells = clocks.get(c);
    if (cells === undefined) {
      rest.push(columns[c]);
      continue;
    }
    const beside = clocks.get(c + 1);
    const isPair = beside !== undefined && cells.every(isDateOnly) && beside.every(isTimeOnly);
    const whole = isPair ? cells.map((cell, i) => joined(cell, beside[i])) : cells;
    const { name, values } = columns[isPair ? c + 1 : c];
    while (whole.length < values.length) whole.push(null);
    const { times, begins, since } = timesOfClock(whole, zone, isElapsed(name));
    made.push({ name, unit: second, values: times, clock: { begins, since } });
    if (isPair) c++;
  }
  return [...made, ...rest];
}

const isDateOnly = (cell: ClockCell | null) => cell === null || (cell.date !== null && cell.seconds === null);
const isTimeOnly = (cell: ClockCell | null) => cell === null || (cell.date === null && cell.seconds !== null);

const joined = (date: ClockCell | null, time: ClockCell | null): ClockCell | null =>
  date === null || time === null ? null : { ...time, date: date.date };
