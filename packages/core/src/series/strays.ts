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

/** Whether a reading stands off from where the two before it were heading, so that those after it have to tell. */
const standsOff = (before2: number, before1: number, value: number, floor: number): boolean =>
  Math.abs(value - (2 * before1 - before2)) > floor;

/**
 * Whether a reading that stands off is a stray: a lone echo of something else. It stands off, to the same side, from where the
 * two readings before it lead, from where the two after it come from, and from the middle between its neighbours, by far
 * more than these three differ among themselves. A bounce, a kink, a jump to another place, or a motion that is read too
 * coarsely does not. Method ours, checked by simulation.
 */
function isStray(
  before2: number,
  before1: number,
  value: number,
  after1: number,
  after2: number,
  floor: number,
): boolean {
  const left = 2 * before1 - before2;
  const right = 2 * after1 - after2;
  const middle = (before1 + after1) / 2;
  const [a, b, c] = [value - left, value - right, value - middle];
  const isOneSided = (a > 0 && b > 0 && c > 0) || (a < 0 && b < 0 && c < 0);
  const doubt = Math.max(Math.abs(left - middle), Math.abs(right - middle));
  return isOneSided && Math.min(Math.abs(a), Math.abs(b), Math.abs(c)) > Math.max(floor, doubtFactor * doubt);
}

interface Stray {
  index: number;
  value: number;
}

/**
 * Takes lone strays out of readings as they come. A reading that stands off is left out (NaN) until the two after it have
 * told what it was, so that at most two readings at the end may still come back.
 */
export class StrayWatch {
  readonly strays: Stray[] = [];
  private pending: Stray | null = null;

  constructor(private readonly floor: number) {}

  /** Looks at the reading `i`, those before it being looked at already. Missing readings (NaN) tell nothing. */
  look(values: Float64Array, i: number): void {
    const { pending, floor } = this;
    if (pending !== null && i === pending.index + 2) {
      const [before2, before1] = [values[i - 4], values[i - 3]];
      if (isStray(before2, before1, pending.value, values[i - 1], values[i], floor))
        this.strays.push(pending);
      else values[pending.index] = pending.value;
      this.pending = null;
    }
    if (i < 2 || !standsOff(values[i - 2], values[i - 1], values[i], floor)) return;
    this.pending = { index: i, value: values[i] };
    values[i] = NaN;
  }

  /** How many of the first readings stand as they are. */
  settled(count: number): number {
    return this.pending === null ? count : this.pending.index;
  }
}

/** Readings with lone strays taken out (NaN); one among the last two that cannot be told is left out too. */
export function withoutStrays(values: ArrayLike<number>, floor: number | null): Float64Array {
  const clean = Float64Array.from(values);
  if (floor === null) return clean;
  const watch = new StrayWatch(floor);
  for (let i = 0; i < clean.length; i++) watch.look(clean, i);
  return clean;
}
