import { canConvert, conversionFactor } from '../units/conversion';
import { type Unit, parseUnit } from '../units/unit';

/**
 * Faster than this nothing in a school lab goes out and comes back between two readings, in m/s²: about ten times the fall.
 * Common practice, no source.
 */
const strayAcceleration = 100;
/** Quantities that are read by echoes. */
const echoed: readonly string[] = ['position', 'distance'];
const noiseFactor = 20;
/** A stray stands so many times farther off than its neighbours leave each other in doubt about where it belongs. */
const doubtFactor = 5;

/**
 * How far a reading must stand off to be thought a stray, in its unit; null for what is no position that a sensor reads, since
 * a force or a voltage may well jump.
 * @param interval between readings, in seconds
 */
export function strayFloor(
  { quantity, unit, noise }: { quantity: string; unit: Unit; noise: number | null },
  interval: number,
): number | null {
  const metre = parseUnit('m');
  if (!echoed.includes(quantity) || noise === null || !canConvert(metre, unit)) return null;
  const slowest = strayAcceleration * interval * interval * conversionFactor(metre, unit);
  return Math.max(noiseFactor * noise, slowest);
}

interface Reading {
  index: number;
  value: number;
}

/** So many in a row may be strays; more are something that is really there. */
const mostInRow = 3;
/** A reading that stands off waits for what comes after it over so many places at the most, missing readings included. */
const longestWait = 8;
/** Readings farther apart than this, for those between are missing, do not tell where a motion is heading. */
const nearPlaces = 3;

/** Where the straight line through two readings lies at a place. */
const lineAt = (a: Reading, b: Reading, index: number): number =>
  a.value + ((b.value - a.value) * (index - a.index)) / (b.index - a.index);

/**
 * Takes strays out of readings as they come: echoes of something else, alone or up to three in a row, also beside missing
 * readings. A stray stands off, to one side, from where the two good readings before it lead, from where the two after it come
 * from, and from the line between its good neighbours, by far more than these three differ among themselves. A bounce, a
 * kink, a jump to another place, or a motion that is read too coarsely does not. What those after it have not decided yet stays:
 * only a few readings at the end may still go. Method ours, checked by simulation.
 */
export class StrayWatch {
  readonly strays: Reading[] = [];
  /** The last two good readings, in plain numbers: a run has millions. Too far apart, they tell no heading. */
  private earlierIndex = NaN;
  private earlierValue = NaN;
  private lastIndex = NaN;
  private lastValue = NaN;
  /** Readings that stand off, and the first good one after the first of them. */
  private pending: Reading[] = [];
  private after: Reading | null = null;

  constructor(private readonly floor: number) {}

  /** Looks at the reading `index`, those before it being looked at already. */
  look(values: Float64Array, index: number): void {
    const value = values[index];
    const { pending } = this;
    if (pending.length > 0 && index - pending[0].index > longestWait) this.giveUp(values);
    if (value === value) this.take(values, { index, value });
  }

  private take(values: Float64Array, reading: Reading): void {
    const { index, value } = reading;
    const isOff = this.standsOff(index, value);
    if (!isOff && this.pending.length === 0) this.good(index, value);
    else if (!isOff && this.after === null) this.after = reading;
    else if (!isOff && this.after !== null) this.judge(values, this.after, reading);
    else if (this.pending.length < mostInRow) this.pending.push(reading);
    else {
      this.giveUp(values);
      this.take(values, reading);
    }
  }

  /** How many of the first readings stand as they are. */
  settled(count: number): number {
    return this.pending.length === 0 ? count : this.pending[0].index;
  }

  /** Whether a reading is not where the two good ones before it were heading. */
  private standsOff(index: number, value: number): boolean {
    const apart = this.lastIndex - this.earlierIndex;
    const places = index - this.lastIndex;
    if (!(apart <= nearPlaces) || places > longestWait) return false;
    const heading = this.lastValue + ((this.lastValue - this.earlierValue) * places) / apart;
    return Math.abs(value - heading) > this.floor * places * places;
  }

  private good(index: number, value: number): void {
    this.earlierIndex = this.lastIndex;
    this.earlierValue = this.lastValue;
    this.lastIndex = index;
    this.lastValue = value;
  }

  /** Two readings are again where the motion was heading: they tell what stood off. */
  private judge(values: Float64Array, first: Reading, second: Reading): void {
    const earlier = { index: this.earlierIndex, value: this.earlierValue };
    const last = { index: this.lastIndex, value: this.lastValue };
    const half = (first.index - last.index) / 2;
    const strays = this.pending.filter((stray) => {
      const left = lineAt(earlier, last, stray.index);
      const right = lineAt(first, second, stray.index);
      const middle = lineAt(last, first, stray.index);
      const off = [left, right, middle].map((line) => stray.value - line);
      const isOneSided = off.every((distance) => distance > 0) || off.every((distance) => distance < 0);
      const doubt = Math.max(Math.abs(left - middle), Math.abs(right - middle));
      const least = Math.min(...off.map(Math.abs));
      return isOneSided && least > Math.max(this.floor * half * half, doubtFactor * doubt);
    });
    if (strays.length === 0) {
      this.after = first;
      this.giveUp(values);
      this.take(values, second);
      return;
    }
    for (const { index } of strays) values[index] = NaN;
    this.strays.push(...strays);
    this.pending = [];
    this.after = null;
    this.good(first.index, first.value);
    this.good(second.index, second.value);
  }

  /** What stood off was no stray: the motion goes on from there, and what follows may be one. */
  private giveUp(values: Float64Array): void {
    const readings = [...this.pending, ...(this.after === null ? [] : [this.after])];
    this.pending = [];
    this.after = null;
    readings.sort((a, b) => a.index - b.index);
    for (const { index, value } of readings.slice(0, 2)) this.good(index, value);
    for (const reading of readings.slice(2)) this.take(values, reading);
  }
}

/** Readings with strays taken out (NaN). */
export function withoutStrays(values: ArrayLike<number>, floor: number | null): Float64Array {
  const clean = Float64Array.from(values);
  if (floor === null) return clean;
  const watch = new StrayWatch(floor);
  for (let i = 0; i < clean.length; i++) watch.look(clean, i);
  return clean;
}
