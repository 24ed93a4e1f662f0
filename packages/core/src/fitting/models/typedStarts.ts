import { pow } from '../../elementary';
import { measured } from '../../formula/dimension';
import { uniformRandom } from '../../random';
import { Refusal, orRefusal } from '../../refusal';
import { linearLeastSquares } from '../linear';
import { type FitPoints } from '../relation';
import { type Unit } from '../../units/unit';
import { axisPowers } from './axisPowers';
import { geometric } from './shaped';
import { type TypedFunction } from './typedFunction';

/** Enough points to tell which start is best. */
const searchPoints = 120;
const mostTrials = 700;
const mostStarts = 6;

/** So many points that lie evenly among all. */
function some({ x, y }: FitPoints): FitPoints {
  const n = x.length;
  if (n <= searchPoints) return { x, y };
  const places = Array.from({ length: searchPoints }, (_, i) =>
    Math.round((i * (n - 1)) / (searchPoints - 1)),
  );
  return { x: Float64Array.from(places, (i) => x[i]), y: Float64Array.from(places, (i) => y[i]) };
}

/**
 * Parameters in which the formula is linear together, so that they need no start: their partial derivatives do not hang on any of
 * them. Found at random values.
 */
export function linearAmong(typed: TypedFunction, x: Float64Array): number[] {
  const random = uniformRandom(7);
  const places: number[] = [];
  const some = Float64Array.of(x[0], x[x.length >> 1], x[x.length - 1]);
  const base = typed.free.map(({ start }) => start ?? 0.3 + random());
  const partials = (values: readonly number[], place: number) => typed.partials(values, place, some);
  typed.free.forEach((_, place) => {
    const together = [...places, place];
    const isLinear = together.every((one) => {
      const before = partials(base, one);
      return together.every((moved) => {
        const after = partials(
          base.map((value, i) => (i === moved ? 1.7 * value + 0.31 : value)),
          one,
        );
        return after.every(
          (value, i) => Math.abs(value - before[i]) <= 1e-9 * (Math.abs(value) + Math.abs(before[i])),
        );
      });
    });
    if (isLinear) places.push(place);
  });
  return places;
}

/**
 * Starts for the parameters of a typed formula, best first: those in which it is linear are solved for; the others are tried over
 * the sizes that their units suggest for this region, of both signs.
 * @param waves pace and phase of a sine in it, as `waveStarts` finds them
 */
export function startsOf(
  typed: TypedFunction,
  points: FitPoints,
  scales: { x: number; y: number; middle: number },
  waves: readonly ReadonlyMap<number, number>[],
): number[][] {
  const few = some(points);
  const linear = linearAmong(typed, few.x);
  const curved = typed.free.map((_, i) => i).filter((i) => !linear.includes(i));
  const trials = trialsOf(typed, curved, scales, waves);
  const found: { start: number[]; sum: number }[] = [];
  for (const trial of trials) {
    const start = typed.free.map((_, i) => (linear.includes(i) ? 0 : trial[curved.indexOf(i)]));
    const solved = solvedFor(typed, start, linear, few);
    if (solved !== null) found.push(solved);
  }
  // Where no start can be solved for, the search itself says why.
  if (found.length === 0) return [typed.free.map(({ start }) => start ?? 1)];
  found.sort((a, b) => a.sum - b.sum);
  const chosen: number[][] = [];
  for (const { start } of found) {
    const isNew = chosen.every((other) =>
      curved.some((i) => Math.abs(start[i] - other[i]) > 0.2 * (Math.abs(start[i]) + Math.abs(other[i]))),
    );
    if (isNew || (curved.length === 0 && chosen.length === 0)) chosen.push(start);
    if (chosen.length >= mostStarts) break;
  }
  return chosen;
}

/** The start with its linear parameters solved for; null where the formula has no finite value. */
function solvedFor(
  typed: TypedFunction,
  start: number[],
  linear: readonly number[],
  { x, y }: FitPoints,
): { start: number[]; sum: number } | null {
  const rest = typed.values(start, x);
  const target = y.map((value, i) => value - rest[i]);
  if (!target.every(Number.isFinite)) return null;
  if (linear.length === 0) return { start, sum: target.reduce((sum, value) => sum + value * value, 0) };
  const columns = linear.map((place) => typed.partials(start, place, x));
  if (!columns.every((column) => column.every(Number.isFinite))) return null;
  const solved = orRefusal(() =>
    linearLeastSquares(
      (first, into) =>
        into
          .slice(0, linear.length)
          .forEach((column, k) => column.set(columns[k].subarray(first, first + column.length))),
      linear.length,
      target,
      'dependent',
    ),
  );
  if (solved instanceof Refusal || !Number.isFinite(solved.residualSumOfSquares)) return null;
  return {
    start: start.map((value, i) => (linear.includes(i) ? solved.parameters[linear.indexOf(i)] : value)),
    sum: solved.residualSumOfSquares,
  };
}

function trialsOf(
  typed: TypedFunction,
  curved: readonly number[],
  scales: { x: number; y: number; middle: number },
  waves: readonly ReadonlyMap<number, number>[],
): number[][] {
  if (curved.length === 0) return [[]];
  if (waves.length > 0) {
    const others = curved.filter((place) => !waves[0].has(place));
    const rest = trialsOf(typed, others, scales, []);
    const each = Math.max(Math.floor(mostTrials / waves.length), 1);
    return waves.flatMap((wave) =>
      evenly(rest, each).map((own) => curved.map((place) => wave.get(place) ?? own[others.indexOf(place)])),
    );
  }
  const choices = curved.map((place) => sizesOf(typed, place, scales));
  const product = choices.reduce((count, list) => count * list.length, 1);
  if (product <= mostTrials)
    return choices.reduce<number[][]>(
      (all, list) => all.flatMap((one) => list.map((value) => [...one, value])),
      [[]],
    );
  const random = uniformRandom(23);
  return Array.from({ length: mostTrials }, () =>
    choices.map((list) => list[Math.min(Math.floor(random() * list.length), list.length - 1)]),
  );
}

/** So many of them that lie evenly among all. */
function evenly<T>(all: readonly T[], most: number): T[] {
  if (all.length <= most) return [...all];
  return Array.from({ length: most }, (_, i) => all[Math.floor((i * all.length) / most)]);
}

/** Values that a parameter may have, by its unit: so many times the reach of x or y, or powers of them. */
function sizesOf(
  typed: TypedFunction,
  place: number,
  scales: { x: number; y: number; middle: number },
): number[] {
  const { unit, start, low, high } = typed.free[place];
  if (start !== null) return [start];
  const isPlainAxis = measured(typed.xUnit).dimension.size === 0;
  const sizes =
    unit === null || (isPlainAxis && measured(unit).dimension.size === 0)
      ? [1, scales.x, 1 / scales.x, scales.y]
      : [sizeOf(typed, unit, scales)];
  const isPlace = unit !== null && sizes[0] === scales.x;
  const wide = sizes.flatMap((size) => geometric(0.02 * size, 50 * size, sizes.length > 1 ? 8 : 24));
  const all = [...wide, ...wide.map((value) => -value), ...(isPlace ? placesAcross(scales) : [])];
  const allowed = all.filter((value) => value >= (low ?? -Infinity) && value <= (high ?? Infinity));
  if (allowed.length > 0) return allowed;
  return [low !== null && high !== null ? (low + high) / 2 : (low ?? high ?? 1)];
}

/** A parameter in the unit of the axis may be a place on it. */
const placesAcross = ({ x, middle }: { x: number; middle: number }) =>
  Array.from({ length: 17 }, (_, i) => middle + (x * (i - 8)) / 16);

/** The size that something of a unit has in this region, from the reach of its axes. */
function sizeOf(typed: TypedFunction, unit: Unit, scales: { x: number; y: number }): number {
  const powers = axisPowers(measured(unit).dimension, typed.xUnit, typed.yUnit);
  if (powers === null) return 1;
  const [x, y] = [measured(typed.xUnit), measured(typed.yUnit)];
  return (pow(scales.y * y.factor, powers.y) * pow(scales.x * x.factor, powers.x)) / measured(unit).factor;
}
