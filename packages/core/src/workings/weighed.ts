import {
  type Influence,
  type Quantity,
  effectiveDegreesOfFreedom,
  merged,
  varianceOf,
} from '../results/quantity';
import {
  type NoisePath,
  type ReadingsRoot,
  type WeightSpan,
  addSpans,
  normSquared,
  scaledSpan,
} from '../series/noisePath';
import { type Series, type SharedEffect, aloneVariance, pathsOf } from '../series/series';
import { type Unit } from '../units/unit';

/**
 * A value that is a weighed sum of values of series, with what moves it: the noise of their readings, followed through any
 * filter, what moves a series as a whole, and the uncertainty of values that were taken one by one.
 * @param parts the series and the weights on their values; null where the sum does not depend on a series
 * @param beside which readings tell their noise too, where the sum is of too few to tell it themselves
 */
export function weighed(
  value: number,
  unit: Unit,
  parts: readonly (readonly [Series, WeightSpan | null])[],
  beside: Beside = 0,
): Quantity {
  const followed = followedToRoots(
    parts.flatMap(([series, weights]) =>
      series.uncertainties === undefined ? pathsOf(series).map((path) => [path, weights] as const) : [],
    ),
    beside,
  );
  const others = parts.flatMap(([series, weights]) =>
    weights === null ? [] : [...sharedBy(series, weights), ...ownOf(series, weights)],
  );
  let made: Influence[] | null = null;
  const influences = () => (made ??= merged([...scaled(followed), ...others]));
  const variance =
    others.length === 0
      ? varianceOfFollowed(followed, influences)
      : influences().reduce((sum, influence) => sum + varianceOf(influence), 0);
  const [[first, weights] = []] = parts;
  const level =
    first === undefined || weights == null
      ? undefined
      : first.noise?.root.level.between(...reachOf(weights, beside));
  return {
    value,
    unit,
    standardUncertainty: variance > 0 ? Math.sqrt(variance) : null,
    // What was given with a value, or with a length, is known; what differences between readings tell is known by so many of them.
    degreesOfFreedom:
      followed.length === 0
        ? Infinity
        : effectiveDegreesOfFreedom([{ variance, degreesOfFreedom: level?.degreesOfFreedom ?? Infinity }]),
    influences,
  };
}

/** So many readings on either side of those that are weighed, or all of a region. */
export type Beside = number | { first: number; past: number };

const reachOf = ({ first, weights }: WeightSpan, beside: Beside): [first: number, past: number] =>
  typeof beside === 'number'
    ? [first - beside, first + weights.length + beside]
    : [Math.min(first, beside.first), Math.max(first + weights.length, beside.past)];

/** What moves a series as a whole moves the sum by the sum of its weighed effects. */
const sharedBy = ({ shared = [] }: Series, weights: WeightSpan): Influence[] =>
  shared.map((one) => movedTogether(one, weighedEffect(one, weights)));

/** How far a root that moves all values together moves a weighed sum of them. */
export function weighedEffect(one: SharedEffect, { first, weights }: WeightSpan): number {
  let total = 0;
  if (one.uniform !== undefined) {
    for (let i = 0; i < weights.length; i++) total += weights[i];
    // Weights of a difference sum to nothing but for rounding.
    const size = weights.reduce((most, weight) => Math.max(most, Math.abs(weight)), 0);
    return Math.abs(total) <= 1e-9 * size ? 0 : total * one.uniform;
  }
  const { effect } = one;
  // A weight of nothing counts nothing, also where a value is missing.
  for (let i = 0; i < weights.length; i++) if (weights[i] !== 0) total += weights[i] * effect[first + i];
  return total;
}

/** What a root that moves all values together does to a sum of them, which it moves so many times as much as its own number. */
export const movedTogether = ({ root, label, by = alone }: SharedEffect, times: number): Influence => ({
  root,
  label,
  effect: scaledSpan(by, times),
});

const alone: WeightSpan = { first: 0, weights: Float64Array.of(1) };

/** Names the values of a series of single measurements as roots of uncertainty, one a value. */
export const rootOfValues = ({ noise, symbol }: Series): string =>
  `${noise?.root.key ?? 'values'}/values of ${symbol}`;

/** Values that were taken one by one, each with an uncertainty of its own; nothing where one of them has none. */
function ownOf(series: Series, { first, weights }: WeightSpan): Influence[] {
  const { uncertainties, symbol } = series;
  if (uncertainties === undefined) return [];
  // What moves them together counts on its own.
  const alone = (i: number) => Math.sqrt(aloneVariance(uncertainties[i], series.shared ?? [], i));
  const effect = weights.map((weight, i) => (weight === 0 ? 0 : weight * alone(first + i)));
  if (effect.some(Number.isNaN)) return [];
  const label = `readings of ${symbol}`;
  return [{ root: rootOfValues(series), label, effect: { first, weights: effect } }];
}

/** Weights on the readings of a root, whose noise has one standard deviation. */
interface Followed {
  root: ReadingsRoot;
  sigma: number;
  spread: WeightSpan;
}

/** Weights on series, followed to the readings of the roots. */
function followedToRoots(
  parts: readonly (readonly [NoisePath, WeightSpan | null])[],
  beside: Beside,
): Followed[] {
  return parts.flatMap(([noise, weights]) => {
    if (weights === null) return [];
    const { root } = noise;
    const spread = noise.spread(weights);
    const sigma = root.level.between(...reachOf(spread, beside)).standardDeviation;
    return Number.isFinite(sigma) ? [{ root, sigma, spread }] : [];
  });
}

/** What one standard deviation of each reading does, each root once. */
function scaled(followed: readonly Followed[]): Influence[] {
  const found: Influence[] = [];
  for (const { root, sigma, spread } of followed) {
    const shared = found.find((influence) => influence.root === root.key);
    if (shared === undefined)
      found.push({ root: root.key, label: root.label, effect: scaledSpan(spread, sigma) });
    else shared.effect = addSpans(shared.effect, spread, sigma);
  }
  return found;
}

/** Their variance; of different roots without writing down what each reading does. */
function varianceOfFollowed(followed: readonly Followed[], influences: () => Influence[]): number {
  return new Set(followed.map(({ root }) => root.key)).size === followed.length
    ? followed.reduce((sum, { sigma, spread }) => sum + sigma * sigma * normSquared(spread.weights), 0)
    : influences().reduce((sum, influence) => sum + varianceOf(influence), 0);
}

/** The effects of weights on series, followed to the roots and scaled by their noise. */
export const gathered = (
  parts: readonly (readonly [NoisePath, WeightSpan | null])[],
  beside: Beside = 0,
): Influence[] => scaled(followedToRoots(parts, beside));

/** The variance that the noise of a series gives to a weighed sum of its values, with what makes it. */
export function noiseOfSum(
  series: Series,
  weights: WeightSpan,
): { variance: number; influences(): Influence[] } {
  const followed = followedToRoots(
    pathsOf(series).map((path) => [path, weights] as const),
    0,
  );
  let made: Influence[] | null = null;
  const influences = () => (made ??= scaled(followed));
  return { variance: varianceOfFollowed(followed, influences), influences };
}
