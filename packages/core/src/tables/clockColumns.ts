import { parseUnit } from '../units/unit';
import { type ClockCell, timesOfClock } from './clock';
import { type ClockLog } from './clockLog';
import { type Column } from './columns';
import { type NumberStore } from './numbers';

/** The columns with dates or times, by the number of the column. */
export type ClockColumns = Map<number, ClockLog>;

const second = parseUnit('s');
/** Times that were counted from a beginning of their own. */
const isElapsed = (name: string) => /elapsed|duration|run ?time|since/i.test(name);

/**
 * Columns of which those with dates or times are seconds since their first one. A date and a time of day side by side are one. The
 * time of the readings comes first.
 */
export function withClocks(
  columns: readonly Column[],
  clocks: ClockColumns,
  zone: string,
  store: NumberStore,
): Column[] {
  if (clocks.size === 0) return [...columns];
  const made: Column[] = [];
  const rest: Column[] = [];
  for (let c = 0; c < columns.length; c++) {
    const log = clocks.get(c);
    if (log === undefined) {
      rest.push(columns[c]);
      continue;
    }
    const beside = clocks.get(c + 1);
    const isPair = beside !== undefined && log.isDates && beside.isTimes;
    const { name, values } = columns[isPair ? c + 1 : c];
    log.padTo(values.length);
    beside?.padTo(values.length);
    const cells = isPair ? joined(log.cells(), beside.cells()) : log.cells();
    const { times, begins, since } = timesOfClock(cells, zone, isElapsed(name), store);
    made.push({ name, unit: second, values: times, clock: { begins, since } });
    if (isPair) c++;
  }
  return [...made, ...rest];
}

/** Dates with the times of day that stand beside them. */
const joined = (
  dates: Iterable<ClockCell | null>,
  times: Iterable<ClockCell | null>,
): Iterable<ClockCell | null> => ({
  *[Symbol.iterator]() {
    const beside = times[Symbol.iterator]();
    for (const date of dates) {
      const time = beside.next().value ?? null;
      yield date === null || time === null ? null : { ...time, date: date.date };
    }
  },
});
