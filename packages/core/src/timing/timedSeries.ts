import { square } from '../elementary';
import { NoiseLevel } from '../series/noiseLevel';
import { type NoisePath, type WeightSpan } from '../series/noisePath';
import { timed } from '../series/sampling';
import { type Series, type SharedEffect } from '../series/series';
import { type Unit } from '../units/unit';
import { type Timed } from './passage';

/** Standard deviation of a value that is known to within a step: the step over √12 (JCGM 100:2008, 4.3.7). */
const shareOfStep = 1 / Math.sqrt(12);

export interface TimedParts {
  symbol: string;
  quantity: string;
  unit: Unit;
  timeUnit: Unit;
  /** Names the edges as a root of uncertainty. */
  key: string;
  label: string;
  /** Times of the edges. */
  edges: Float64Array;
  /** The step in which their times were counted; null where nobody knows. */
  resolution: number | null;
  /** What moves the length that the values were worked out with, by one standard deviation of each root. */
  length: readonly { root: string; label: string; effect: number }[];
}

/** Values that were timed, as a series: its noise is that of the timer, followed to the edges. */
export function timedSeries(found: Timed, parts: TimedParts): Series {
  const { symbol, quantity, unit, timeUnit, length } = parts;
  const shared = length.map(({ root, label, effect }): SharedEffect => ({
    root,
    label,
    effect: Float64Array.from(found.byLength, (derivative) => derivative * effect),
  }));
  const noise = noiseOf(found, parts);
  const values = Float64Array.from(found.values);
  return {
    symbol,
    quantity,
    unit,
    timeUnit,
    sampling: timed(Float64Array.from(found.times)),
    values,
    noise,
    made: [],
    lineage: {},
    settled: found.values.length,
    ...(shared.length === 0 ? {} : { shared }),
    repeats: true,
    uncertainties: uncertaintiesOf(noise, shared, values.length),
  };
}

function noiseOf({ byEdge }: Timed, { key, label, edges, resolution }: TimedParts): NoisePath | null {
  if (resolution === null) return null;
  const readings = () => ({ sampling: timed(edges), values: edges });
  const rows = byEdge.map((weights): WeightSpan => {
    if (weights.length === 0) return { first: 0, weights: new Float64Array(0) };
    const first = Math.min(...weights.map(({ edge }) => edge));
    const row = new Float64Array(Math.max(...weights.map(({ edge }) => edge)) - first + 1);
    for (const { edge, weight } of weights) row[edge - first] += weight;
    return { first, weights: row };
  });
  return {
    root: { key, label, level: new NoiseLevel(readings, resolution * shareOfStep, false), readings },
    independent: false,
    row: (i) => rows[i],
    isOrdinary: () => false,
    spread({ first, weights }) {
      const whole = new Float64Array(edges.length);
      weights.forEach((weight, i) => {
        const row = rows[first + i];
        row.weights.forEach((value, j) => (whole[row.first + j] += weight * value));
      });
      return { first: 0, weights: whole };
    },
  };
}

/** Standard uncertainty of each value by itself: of the timer, and of the length. */
function uncertaintiesOf(
  noise: NoisePath | null,
  shared: readonly SharedEffect[],
  count: number,
): Float64Array {
  const level = noise?.root.level.between(0, Infinity).standardDeviation ?? NaN;
  return Float64Array.from({ length: count }, (_, i) => {
    const row = noise?.row(i)?.weights ?? [];
    let variance = 0;
    for (const weight of row) variance += square(weight * level);
    for (const { effect } of shared) variance += square(effect[i]);
    return noise === null ? NaN : Math.sqrt(variance);
  });
}
