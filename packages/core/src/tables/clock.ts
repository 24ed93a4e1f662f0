import { Refusal } from '../refusal';
import { ColumnWriter } from './columnWriter';
import { type NumberStore, type Numbers, inMemory } from './numbers';

/** A date, a time of day, or both, as a cell writes them; the order of day and month may still be open. */
export interface ClockCell {
  /** Year, and the two other numbers in the order in which they stand. */
  date: { year: number; first: number; second: number; order: DateOrder | null } | null;
  /** Seconds since midnight. */
  seconds: number | null;
  /** Minutes east of universal time, where the cell says it. */
  offset: number | null;
}

export type DateOrder = 'month-day' | 'day-month';

const daySeconds = 86_400;
const timePart = String.raw`(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d+))?)?\s*([ap]\.?m\.?)?`;
const zonePart = String.raw`\s*(Z|UTC|GMT|[+−-]\d{2}(?::?\d{2})?)?`;
const isoPattern = new RegExp(
  `^(\\d{4})([-/.])(\\d{1,2})\\2(\\d{1,2})(?:[T ,]+${timePart}${zonePart})?$`,
  'i',
);
const dayPattern = new RegExp(
  `^(\\d{1,2})([-/.])(\\d{1,2})\\2(\\d{4}|\\d{2})(?:[T ,]+${timePart}${zonePart})?$`,
  'i',
);
const clockPattern = new RegExp(`^${timePart}${zonePart}$`, 'i');

/**
 * Reads a cell as a date or a time: ISO 8601 ("2026-11-29T10:15:30.5Z"), day before month or month before day with points, strokes
 * or dashes ("29.11.2026 10:15"), times of day alone ("10:15:30.25", "2:05 pm"). Undefined for anything else.
 */
export function clockIn(text: string): ClockCell | undefined {
  const cell = text.trim();
  // Most cells are numbers: a look at one sign is cheaper than three patterns.
  if (!/^\d{1,4}[-/.:]\d/.test(cell)) return undefined;
  const iso = isoPattern.exec(cell);
  if (iso !== null)
    return checked(
      { year: Number(iso[1]), first: Number(iso[3]), second: Number(iso[4]), order: 'month-day' },
      iso.slice(5),
    );
  const day = dayPattern.exec(cell);
  if (day !== null) {
    const [first, second, year] = [Number(day[1]), Number(day[3]), Number(day[4])];
    const order = day[2] === '.' || first > 12 ? 'day-month' : second > 12 ? 'month-day' : null;
    return checked({ year: year < 100 ? 2000 + year : year, first, second, order }, day.slice(5));
  }
  const clock = clockPattern.exec(cell);
  return clock === null ? undefined : checked(null, clock.slice(1));
}

function checked(date: ClockCell['date'], parts: (string | undefined)[]): ClockCell | undefined {
  const [hours, minutes, seconds = '0', fraction = '', half, zone] = parts;
  if (date !== null && !isDate(date)) return undefined;
  if (hours === undefined) return { date, seconds: null, offset: null };
  let hour = Number(hours);
  if (half !== undefined) {
    if (hour < 1 || hour > 12) return undefined;
    hour = (hour % 12) + (/^p/i.test(half) ? 12 : 0);
  }
  const whole = hour * 3600 + Number(minutes) * 60 + Number(seconds);
  // A day ends at 24:00:00, or a leap second later.
  if (whole > daySeconds || Number(minutes) > 59 || Number(seconds) > 60) return undefined;
  return {
    date,
    seconds: Number(`${whole}.${fraction || '0'}`),
    offset: zone === undefined ? null : offsetIn(zone),
  };
}

/** Whether there is such a day, in the order in which it is written, or in one of both. */
const isDate = ({ order, ...date }: NonNullable<ClockCell['date']>): boolean =>
  order === null ? isDay(date, 'day-month') || isDay(date, 'month-day') : isDay(date, order);

type WrittenDate = Omit<NonNullable<ClockCell['date']>, 'order'>;

const monthAndDay = ({ first, second }: WrittenDate, order: DateOrder) =>
  order === 'day-month' ? [second, first] : [first, second];

/** Midnight of a day by universal time, in seconds. */
function midnightOf(date: WrittenDate, order: DateOrder): number {
  const [month, day] = monthAndDay(date, order);
  return Date.UTC(date.year, month - 1, day) / 1000;
}

/** February has no 30th day: a day that is none would be counted on into March. */
function isDay(date: WrittenDate, order: DateOrder): boolean {
  const [month, day] = monthAndDay(date, order);
  const made = new Date(midnightOf(date, order) * 1000);
  return made.getUTCMonth() === month - 1 && made.getUTCDate() === day;
}

function offsetIn(zone: string): number {
  const match = /^([+−-])(\d{2}):?(\d{2})?$/.exec(zone);
  if (match === null) return 0;
  return (match[1] === '+' ? 1 : -1) * (Number(match[2]) * 60 + Number(match[3] ?? 0));
}

/** Times of a column, and when they began. */
export interface ClockTimes {
  /** Seconds since the first of them; NaN where one is missing. */
  times: Numbers;
  /** The instant of the first one, in ISO 8601; null where only times of day are known. */
  begins: string | null;
  /** The time of day of the first one, where no date is known: seconds since midnight. */
  since: number | null;
}

/** Times are written away so many at a time. */
const writtenAtOnce = 65_536;

/**
 * Turns cells of one column, or of a date and a time beside it, into seconds since the first. Times without a zone are those of a
 * clock on the wall in `zone`: where that was put back, the hour that comes twice goes on. Times of day alone go on over midnight.
 * @param cells in the order of the rows; they are gone through twice
 * @param keepsZero true of times that were counted from a beginning of their own, as “elapsed” ones are
 * @param store where the times are written to
 */
export function timesOfClock(
  cells: Iterable<ClockCell | null>,
  zone: string,
  keepsZero: boolean,
  store: NumberStore = inMemory,
): ClockTimes {
  const { order, isDated } = orderOf(cells);
  const offsets = new Map<number, number>();
  const offsetAt = (instant: number): number => {
    // Clocks are changed on quarters of an hour.
    const key = Math.floor(instant / 900);
    let found = offsets.get(key);
    if (found === undefined) offsets.set(key, (found = offsetOfZone(key * 900, zone)));
    return found;
  };
  const out = new ColumnWriter(store);
  const countsFromZero = keepsZero && !isDated;
  let first = NaN;
  let last = -Infinity;
  let days = 0;
  for (const cell of cells) {
    if (out.tail.length >= writtenAtOnce) out.flush();
    if (cell === null) {
      out.put(NaN);
      continue;
    }
    const seconds = cell.seconds ?? 0;
    let at: number;
    if (cell.date === null) {
      at = seconds + days * daySeconds;
      if (at < last - daySeconds / 2) {
        days++;
        at += daySeconds;
      }
    } else {
      const wall = midnightOf(cell.date, cell.date.order ?? order) + seconds;
      if (cell.offset !== null) at = wall - cell.offset * 60;
      else {
        at = wall - offsetAt(wall - offsetAt(wall));
        const later = wall - offsetAt(wall + 3600 - offsetAt(wall + 3600));
        const earlier = wall - offsetAt(wall - 3600 - offsetAt(wall - 3600));
        // The hour that a clock shows twice: the earlier one first, then the one that goes on.
        const possible = [Math.min(at, later, earlier), at, Math.max(at, later, earlier)].filter(
          (one) => Math.abs(one + offsetAt(one) - wall) < 1e-6,
        );
        at = possible.find((one) => one > last) ?? at;
      }
    }
    if (Number.isNaN(first)) first = at;
    out.put(roundedTime(at - (countsFromZero ? 0 : first)));
    last = at;
  }
  const from = countsFromZero ? 0 : first;
  return {
    times: out.numbers(),
    begins: isDated && Number.isFinite(first) ? new Date(Math.round(first * 1000)).toISOString() : null,
    since: isDated || from === 0 ? null : from,
  };
}

/** Seconds of a date have some nine digits before the point; what is left of a double after it is microseconds. */
const roundedTime = (seconds: number) => Math.round(seconds * 1e6) / 1e6;

/** Days in the order of their rows, read with day or month first: whether they are days, sorted, and from where to where. */
class DaysRead {
  private isSorted = true;
  private first = NaN;
  private last = -Infinity;

  constructor(private readonly order: DateOrder) {}

  take(date: WrittenDate): void {
    if (!this.isSorted) return;
    const day = isDay(date, this.order) ? midnightOf(date, this.order) : -Infinity;
    this.isSorted = day >= this.last && Number.isFinite(day);
    if (Number.isNaN(this.first)) this.first = day;
    this.last = day;
  }

  get span(): number {
    return this.isSorted && Number.isFinite(this.last) ? this.last - this.first : Infinity;
  }
}

/**
 * Whether day or month stands first, where cells leave it open: as the others say, or so that the dates lie closer together; and
 * whether there are dates at all.
 * @throws Refusal where some say this and some say that
 */
function orderOf(cells: Iterable<ClockCell | null>): { order: DateOrder; isDated: boolean } {
  const known = new Set<DateOrder>();
  const [monthDay, dayMonth] = [new DaysRead('month-day'), new DaysRead('day-month')];
  let isDated = false;
  for (const cell of cells) {
    const date = cell?.date ?? null;
    if (date === null) continue;
    isDated = true;
    if (date.order !== null) known.add(date.order);
    monthDay.take(date);
    dayMonth.take(date);
  }
  if (known.size > 1)
    throw new Refusal(
      'Some dates of one column have the day first and some have the month first. Write all of them alike, best as 2026-11-29.',
    );
  const [only] = known;
  return { isDated, order: only ?? (monthDay.span < dayMonth.span ? 'month-day' : 'day-month') };
}

const formats = new Map<string, Intl.DateTimeFormat>();

/** Seconds by which the clocks of a zone are ahead of universal time at an instant. */
function offsetOfZone(instant: number, zone: string): number {
  let format = formats.get(zone);
  if (format === undefined) {
    format = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    });
    formats.set(zone, format);
  }
  const parts = Object.fromEntries(
    format.formatToParts(instant * 1000).map(({ type, value }) => [type, Number(value)]),
  );
  return (
    Date.UTC(parts.year, parts.month - 1, parts.day, parts.hour, parts.minute, parts.second) / 1000 - instant
  );
}

/** A time of day as a clock shows it: "10:15:30". */
export function timeOfDay(seconds: number): string {
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0');
  return `${two(seconds / 3600)}:${two((seconds / 60) % 60)}:${two(seconds % 60)}`;
}

/** The decimal sign that a clock's fraction would be taken for has no say in the decimal sign of the file. */
export const isClock = (cell: string): boolean => cell.includes(':') && clockIn(cell) !== undefined;
