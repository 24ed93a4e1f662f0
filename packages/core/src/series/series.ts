import { square } from '../elementary';
import { type Unit } from '../units/unit';
import { type NoisePath, type ReadingsRoot, type WeightSpan, normSquared, readingsNoise } from './noisePath';
import {
  type Sampling,
  checkSampling,
  countOf,
  indexAtOrAfter,
  onOneGrid,
  timeAt,
  timesOf,
} from './sampling';

/** One filter that a series has gone through, so that what it took away can be stated. */
export interface FilterStep {
  /** Symbol of the series that the filter made. */
  symbol: string;
  windowPoints: number;
  degree: number;
  /** 0 smooths, 1 differentiates, 2 differentiates twice. */
  order: number;
  /** True of a running median, which is no polynomial. */
  isMedian?: boolean;
}

/** A root of uncertainty that all values share, such as a typed length, and how one standard deviation of it moves each. */
export interface SharedEffect {
  readonly root: string;
  readonly label: string;
  readonly effect: Float64Array;
  /** Where it moves all values by the same, as the zero of a sensor does: by how much. */
  readonly uniform?: number;
  /** Where the root is many readings, that move all values by one number: how each of them moves that. One reading otherwise. */
  readonly by?: WeightSpan;
}

/**
 * Values over an ascending abscissa. The abscissa is time in seconds for a recorded run, or the number of the reading where
 * a file had no time. A missing value is NaN.
 */
export interface Series {
  readonly symbol: string;
  readonly quantity: string;
  readonly unit: Unit;
  /** Unit of the abscissa. */
  readonly timeUnit: Unit;
  readonly sampling: Sampling;
  readonly values: Float64Array;
  /** How its noise comes from readings; null for what has none, like the abscissa. */
  readonly noise: NoisePath | null;
  /** Where it comes from the readings of several channels: the ways to the others. */
  readonly further?: readonly NoisePath[];
  /** The filters between the readings and this series. */
  readonly made: readonly FilterStep[];
  /**
   * Of what is more than readings with filters over them, such as a formula: the series behind it that windows made. Null where
   * a window lies over such a one again, so that nobody can tell what it takes off.
   */
  readonly windowed?: readonly Series[] | null;
  /** The same object for all states of one growing series. */
  readonly lineage: object;
  /** How many of the first values no later reading can change. */
  readonly settled: number;
  /** What moves all values together; absent where nothing does. */
  readonly shared?: readonly SharedEffect[];
  /**
   * True where each value is a measurement of its own, such as one pass through a gate: their scatter is then what their mean
   * is uncertain by.
   */
  readonly repeats?: boolean;
  /** The step in which its readings come, where it is readings and they come in steps. */
  readonly step?: number;
  /** Standard uncertainty of each value, where it is known one by one; NaN where it is not. */
  readonly uncertainties?: Float64Array;
  /** Covariance of each value with the one beside it in another series, by the key of the root of that one. */
  readonly beside?: ReadonlyMap<string, Float64Array>;
}

/** How far one standard deviation of a root that moves several values moves one of them. */
export const sharedAt = ({ uniform, effect, by }: SharedEffect, i: number): number =>
  (uniform ?? effect[i]) * (by === undefined ? 1 : Math.sqrt(normSquared(by.weights)));

/** The variance of a value that is its own, where several values owe a part of theirs to the same roots. */
export const aloneVariance = (uncertainty: number, shared: readonly SharedEffect[], i: number): number =>
  Math.max(
    shared.reduce((rest, one) => rest - square(sharedAt(one, i)), square(uncertainty)),
    0,
  );

/** The same root with another effect, which need not be alike for all values any more. */
export const withEffect = ({ root, label, by }: SharedEffect, effect: Float64Array): SharedEffect => ({
  root,
  label,
  effect,
  ...(by === undefined ? {} : { by }),
});

/** The series that windows made, behind a series that comes from others; null where that cannot be determined. */
export function windowedBehind(all: readonly Series[]): readonly Series[] | null {
  const found = new Set<Series>();
  for (const series of all) {
    if (series.windowed === null) return null;
    const own = series.made.some(({ isMedian }) => isMedian !== true) ? [series] : [];
    for (const one of series.windowed ?? own) found.add(one);
  }
  return [...found];
}

/** The ways of its noise to the readings of each channel behind it. */
export const pathsOf = ({ noise, further = [] }: Pick<Series, 'noise' | 'further'>): NoisePath[] =>
  noise === null ? [] : [noise, ...further];

/**
 * What moves a series together, as it moves one that follows from it linearly: the same is done to the effects.
 * @param ofUniform what becomes of values that all move alike: they still do, or nothing of it is left; made like any other
 * effect where nothing is said
 */
export function sharedThrough(
  series: Series,
  made: (like: Series) => Float64Array,
  ofUniform?: 'kept' | 'gone',
): Pick<Series, 'shared'> {
  const shared = series.shared?.filter(({ uniform }) => uniform === undefined || ofUniform !== 'gone');
  if (shared === undefined || shared.length === 0) return {};
  return {
    shared: shared.map(({ uniform, ...one }) => {
      if (uniform !== undefined && ofUniform === 'kept') return { ...one, uniform };
      return {
        ...one,
        effect: made({
          ...series,
          values: one.effect,
          lineage: {},
          noise: null,
          further: undefined,
          shared: undefined,
        }),
      };
    }),
  };
}

export interface ReadingsParts {
  symbol: string;
  quantity: string;
  unit: Unit;
  timeUnit: Unit;
  sampling: Sampling;
  values: Float64Array;
  root?: ReadingsRoot;
  lineage?: object;
  /** How many of the first values no later reading can change; all, where nothing is said. */
  settled?: number;
  uncertainties?: Float64Array;
  repeats?: boolean;
  shared?: readonly SharedEffect[];
  step?: number;
  beside?: ReadonlyMap<string, Float64Array>;
}

/**
 * Readings as a series; its noise begins here.
 * @throws Refusal where the sampling is no sampling, or differs in length from the values
 */
export function readingsSeries({ root, lineage, settled, ...parts }: ReadingsParts): Series {
  checkSampling(parts.sampling);
  const count = countOf(parts.sampling);
  if (count !== parts.values.length)
    throw new RangeError(`times (${count}) and values (${parts.values.length}) differ in length`);
  return {
    ...parts,
    noise: root === undefined ? null : readingsNoise(root),
    made: [],
    lineage: lineage ?? parts.values,
    settled: settled ?? count,
  };
}

/** Linear interpolation of a series at one abscissa; NaN outside it or beside a missing value. */
export function valueAt({ sampling, values }: Series, at: number): number {
  const right = indexAtOrAfter(sampling, at);
  const count = values.length;
  if (right < count && timeAt(sampling, right) === at) return values[right];
  if (right === 0 || right >= count) return NaN;
  const left = right - 1;
  const [from, to] = [timeAt(sampling, left), timeAt(sampling, right)];
  return values[left] + ((at - from) / (to - from)) * (values[right] - values[left]);
}

/** The values of `series` at the times of another one: the very values where both share their times, else interpolated. */
export function valuesAtTimesOf(series: Series, other: Series): Float64Array {
  if (onOneGrid(series.sampling, other.sampling)) {
    const count = other.values.length;
    if (series.values.length === count) return series.values;
    if (series.values.length > count) return series.values.subarray(0, count);
    const out = new Float64Array(count).fill(NaN);
    out.set(series.values);
    return out;
  }
  return timesOf(other.sampling).map((time) => valueAt(series, time));
}
