import { type ClockCell, type DateOrder } from './clock';
import { ColumnWriter } from './columnWriter';
import { type NumberStore, type Numbers } from './numbers';

const orders: readonly (DateOrder | null)[] = [null, 'month-day', 'day-month'];

/** The dates and times of a column as they are read, kept as three numbers each, since there may be millions of them. */
export class ClockLog {
  private readonly days: ColumnWriter;
  private readonly seconds: ColumnWriter;
  private readonly offsets: ColumnWriter;
  /** Whether all of them so far are dates without a time of day, or times of day without a date. */
  isDates = true;
  isTimes = true;

  /** @param missing how many rows had nothing there before the first one */
  constructor(store: NumberStore, missing: number) {
    [this.days, this.seconds, this.offsets] = [
      new ColumnWriter(store),
      new ColumnWriter(store),
      new ColumnWriter(store),
    ];
    this.padTo(missing);
  }

  get length(): number {
    return this.days.length;
  }

  add({ date, seconds, offset }: ClockCell): void {
    if (date === null || seconds !== null) this.isDates = false;
    if (date !== null || seconds === null) this.isTimes = false;
    this.days.put(
      date === null
        ? NaN
        : date.year * 1e6 + date.first * 1e4 + date.second * 1e2 + orders.indexOf(date.order),
    );
    this.seconds.put(seconds ?? NaN);
    this.offsets.put(offset ?? NaN);
  }

  /** Rows without one, up to a number of rows. */
  padTo(rows: number): void {
    while (this.length < rows) for (const column of [this.days, this.seconds, this.offsets]) column.put(NaN);
  }

  flush(): void {
    for (const column of [this.days, this.seconds, this.offsets]) column.flush();
  }

  /** What was read, row by row; it can be gone through again and again. */
  cells(): Iterable<ClockCell | null> {
    const [days, seconds, offsets] = [this.days.numbers(), this.seconds.numbers(), this.offsets.numbers()];
    return { [Symbol.iterator]: () => cellsIn(days, seconds, offsets) };
  }
}

const cellsAtOnce = 16_384;

function* cellsIn(days: Numbers, seconds: Numbers, offsets: Numbers): Generator<ClockCell | null> {
  const known = (value: number) => (Number.isNaN(value) ? null : value);
  for (let from = 0; from < days.length; from += cellsAtOnce) {
    const to = Math.min(from + cellsAtOnce, days.length);
    const [day, second, offset] = [days, seconds, offsets].map((numbers) => numbers.subarray(from, to));
    for (let i = 0; i < day.length; i++) {
      const code = day[i];
      const date = Number.isNaN(code)
        ? null
        : {
            year: Math.floor(code / 1e6),
            first: Math.floor(code / 1e4) % 100,
            second: Math.floor(code / 1e2) % 100,
            order: orders[code % 100],
          };
      const own = known(second[i]);
      yield date === null && own === null ? null : { date, seconds: own, offset: known(offset[i]) };
    }
  }
}
