import {
  type Influence,
  type Quantity,
  effectiveDegreesOfFreedom,
  merged,
  varianceOf,
} from '../results/quantity';
import { type NoisePath, type Stretch, addStretches, scaledStretch } from '../series/noisePath';
import { type Series, type SharedEffect, pathsOf } from '../series/series';
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
  parts: readonly (readonly [Series, Stretch | null])[],
  beside: Beside = 0,
): Quantity {
  const influences = merged([
    ...gathered(
      parts.flatMap(([series, weights]) =>
        series.uncertainties === undefined ? pathsOf(series).map((path) => [path, weights] as const) : [],
      ),
      beside,
    ),
    ...parts.flatMap(([series, weights]) =>
      weights === null ? [] : [...sharedBy(series, weights), ...ownOf(series, weights)],
    ),
  ]);
  const variance = influences.reduce((sum, influence) => sum + varianceOf(influence), 0);
  const [[first, weights] = []] = parts;
  const level =
    first === undefined || weights == null
      ? undefined
      : first.noise?.root.level.between(...reachOf(weights, beside));
  return {
    value,
    unit,
    standardUncertainty: variance > 0 ? Math.sqrt(variance) : null,
    degreesOfFreedom: effectiveDegreesOfFreedom([
      { variance, degreesOfFreedom: level?.degreesOfFreedom ?? Infinity },
    ]),
    influences: () => influences,
  };
}

/** So many readings on either side of those that are weighed, or all of a stretch. */
export type Beside = number | { first: number; past: number };

const reachOf = ({ first, weights }: Stretch, beside: Beside): [first: number, past: number] =>
  typeof beside === 'number'
    ? [first - beside, first + weights.length + beside]
    : [Math.min(first, beside.first), Math.max(first + weights.length, beside.past)];

/** What moves a series as a whole moves the sum by the sum of its weighed effects. */
const sharedBy = ({ shared = [] }: Series, { first, weights }: Stretch): Influence[] =>
  shared.map((one) =>
    movedTogether(
      one,
      // A weight of nothing counts nothing, also where a value is missing.
      weights.reduce(
        (total, weight, i) => (weight === 0 ? total : total + weight * one.effect[first + i]),
        0,
      ),
    ),
  );

/** What a root that moves all values together does to a sum of them, which it moves so many times as much as its own number. */
export const movedTogether = ({ root, label, by = alone }: SharedEffect, times: number): Influence => ({
  root,
  label,
  effect: scaledStretch(by, times),
});

const alone: Stretch = { first: 0, weights: Float64Array.of(1) };

/** Values that were taken one by one, each with an uncertainty of its own; nothing where one of them has none. */
function ownOf({ uncertainties, symbol }: Series, { first, weights }: Stretch): Influence[] {
  if (uncertainties === undefined) return [];
  const effect = weights.map((weight, i) => (weight === 0 ? 0 : weight * uncertainties[first + i]));
  if (effect.some(Number.isNaN)) return [];
  const label = `readings of ${symbol}`;
  return [{ root: label, label, effect: { first, weights: effect } }];
}

/** The effects of weights on series, followed to the roots and scaled by their noise. */
export function gathered(
  parts: readonly (readonly [NoisePath, Stretch | null])[],
  beside: Beside = 0,
): Influence[] {
  const found: Influence[] = [];
  for (const [noise, weights] of parts) {
    if (weights === null) continue;
    const { root } = noise;
    const spread = noise.spread(weights);
    const sigma = root.level.between(...reachOf(spread, beside)).standardDeviation;
    if (!Number.isFinite(sigma)) continue;
    const effect = scaledStretch(spread, sigma);
    const shared = found.find((influence) => influence.root === root.key);
    if (shared === undefined) found.push({ root: root.key, label: root.label, effect });
    else shared.effect = addStretches(shared.effect, effect);
  }
  return found;
}
