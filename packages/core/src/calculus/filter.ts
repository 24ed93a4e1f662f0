import { Refusal } from '../refusal';
import { Growing } from '../series/growing';
import { type NoisePath, type WeightSpan, addSpans } from '../series/noisePath';
import { addScaled } from '../vectors';
import { checkSampling, intervalOf, timesOf } from '../series/sampling';
import { type FilterStep, type Series } from '../series/series';
import { localPolynomialWeights } from './localPolynomial';

export interface FilterOptions {
  /** Odd number of readings, 3 or more. */
  windowPoints: number;
  /** Degree of the local polynomial; below the window. */
  degree: number;
  /** 0 smooths, 1 differentiates, 2 differentiates twice. */
  order: number;
}

/** The part of a series that a filter makes. */
export type Filtered = Pick<
  Series,
  'values' | 'noise' | 'further' | 'made' | 'windowed' | 'lineage' | 'settled'
>;

/** What a filter keeps of its last pass, so that readings that come later cost only themselves. */
interface Kept {
  input: object;
  /** Window, degree and order. */
  filter: string;
  values: Growing;
  settled: number;
}

const keptOf = new WeakMap<object, Kept>();

/**
 * Smoothing and differentiation by a local polynomial, with the same polynomial at both ends rather than a shorter series.
 * Regular times use one fixed set of weights; irregular times and windows with missing readings use least squares on the
 * times that are there. A missing reading stays missing.
 * @param before what the same filter made of an earlier, shorter state of the same series; only the rest is worked out
 * @throws Refusal where the series is shorter than the window, or its times are no times
 */
export function localPolynomialFilter(
  series: Series,
  symbol: string,
  options: FilterOptions,
  before?: Series,
): Filtered {
  const { windowPoints: width, degree, order } = options;
  const { sampling, values } = series;
  checkSampling(sampling);
  const n = values.length;
  if (!Number.isInteger(width) || width < 3 || width % 2 === 0)
    throw new Refusal(`The window must be an odd number of readings from 3 upwards, not ${width}.`);
  if (degree < order || degree >= width)
    throw new Refusal(`A polynomial of degree ${degree} does not go with a window of ${width} readings.`);
  if (n < width)
    throw new Refusal(`A window of ${width} readings needs at least ${width} readings; this run has ${n}.`);

  const half = (width - 1) / 2;
  const interval = intervalOf(sampling);
  const times = interval === null ? timesOf(sampling) : null;
  const fixed = interval === null ? null : fixedWeights(interval, options);

  const earlier = before === undefined ? undefined : keptOf.get(before.lineage);
  const goesOn =
    before !== undefined &&
    earlier !== undefined &&
    earlier.input === series.lineage &&
    earlier.filter === `${width}/${degree}/${order}`;
  const kept: Kept = goesOn
    ? earlier
    : { input: series.lineage, filter: `${width}/${degree}/${order}`, values: new Growing(n), settled: 0 };
  const from = kept.settled;
  const out = kept.values.extend(n);

  const startOf = (i: number) => Math.min(Math.max(i - half, 0), n - width);
  const solvedRow = (i: number): WeightSpan => {
    const first = startOf(i);
    const present: number[] = [];
    for (let j = 0; j < width; j++) if (!Number.isNaN(values[first + j])) present.push(j);
    const weights = new Float64Array(width);
    if (present.length <= degree) return { first, weights: weights.fill(NaN) };
    const at = (index: number) => (times === null ? (index - first) * (interval ?? 1) : times[index]);
    const solved = localPolynomialWeights(
      present.map((j) => at(first + j)),
      at(i),
      degree,
      order,
    );
    present.forEach((j, place) => (weights[j] = solved[place]));
    return { first, weights };
  };
  const hasMissing = (first: number) => {
    for (let j = 0; j < width; j++) if (values[first + j] !== values[first + j]) return true;
    return false;
  };
  /** Row i of the filter: the fixed weights where nothing stands against them. */
  const rowOf = (i: number): WeightSpan => {
    const first = startOf(i);
    return fixed === null || hasMissing(first) ? solvedRow(i) : { first, weights: fixed[i - first] };
  };
  const applied = ({ first, weights }: WeightSpan): number => {
    let sum = 0;
    for (let j = 0; j < width; j++) if (weights[j] !== 0) sum += weights[j] * values[first + j];
    return sum;
  };

  if (fixed === null)
    for (let i = from; i < n; i++) out[i] = Number.isNaN(values[i]) ? NaN : applied(solvedRow(i));
  else {
    const start = Math.max(from, half);
    const isWhole = slide(values, fixed[half], options, out, start, n - half);
    const byRow = (i: number) => (out[i] = values[i] === values[i] ? applied(rowOf(i)) : NaN);
    for (let i = from; i < Math.min(half, n); i++) byRow(i);
    if (!isWhole) for (let i = start; i < n - half; i++) if (out[i] !== out[i]) byRow(i);
    for (let i = Math.max(n - half, start); i < n; i++) byRow(i);
  }
  kept.settled = Math.max(Math.min(series.settled, n) - half, 0);
  const lineage = goesOn ? before.lineage : {};
  keptOf.set(lineage, kept);
  const step: FilterStep = { symbol, windowPoints: width, degree, order };
  /** Weights that are the same for all rows from `low` up to `high`, or null where some row there has its own. */
  const commonWeights = (low: number, high: number): Float64Array | null => {
    if (fixed === null || low < half || high > n - half) return null;
    return wholeBetween(low - half, high + half) ? fixed[half] : null;
  };
  /** The interval that was last seen to be without a missing reading: it is asked for again and again. */
  const whole = { low: 0, high: 0 };
  const wholeBetween = (low: number, high: number): boolean => {
    if (low >= whole.low && high <= whole.high) return true;
    for (let i = low; i < high; i++) if (values[i] !== values[i]) return false;
    if (high - low >= whole.high - whole.low) Object.assign(whole, { low, high });
    return true;
  };
  const inner = (low: number, high: number): [number, number] => [
    Math.min(Math.max(low, half), high),
    Math.max(Math.min(high, n - half), Math.min(Math.max(low, half), high)),
  ];
  const through = (path: NoisePath) => filteredNoise(path, { rowOf, inner, commonWeights, options });
  return {
    values: out,
    noise: series.noise === null ? null : through(series.noise),
    ...(series.further === undefined ? {} : { further: series.further.map(through) }),
    made: [...series.made, step],
    ...(series.windowed === undefined ? {} : { windowed: null }),
    lineage,
    settled: kept.settled,
  };
}

const weightSets = new Map<string, Float64Array[]>();

/** Weights for every place in the window of a regular series. */
function fixedWeights(interval: number, { windowPoints, degree, order }: FilterOptions): Float64Array[] {
  const key = `${interval}/${windowPoints}/${degree}/${order}`;
  let found = weightSets.get(key);
  if (found === undefined) {
    const offsets = Array.from({ length: windowPoints }, (_, j) => j * interval);
    found = offsets.map((at) => localPolynomialWeights(offsets, at, degree, order));
    if (weightSets.size > 200) weightSets.clear();
    weightSets.set(key, found);
  }
  return found;
}

/** The moving sums are taken anew so often, so that rounding cannot gather. */
const freshEvery = 128;

/**
 * The hot loop for slopes: their weights are proportional to the place in the window, so that two moving sums give every
 * value at the same price, however wide the window is. Readings are taken about one of them, which keeps the sums small.
 * @returns whether no reading was missing
 */
function slideSlope(
  values: Float64Array,
  weights: Float64Array,
  out: Float64Array,
  from: number,
  end: number,
): boolean {
  const half = (weights.length - 1) / 2;
  const perPlace = weights[half + 1];
  let isWhole = true;
  for (let start = from; start < end; start += freshEvery) {
    const stop = Math.min(start + freshEvery, end);
    const base = values[start];
    let sum = 0;
    let moment = 0;
    for (let j = -half; j <= half; j++) {
      const value = values[start + j] - base;
      sum += value;
      moment += j * value;
    }
    out[start] = perPlace * moment;
    for (let i = start + 1; i < stop; i++) {
      const leaves = values[i - half - 1] - base;
      const enters = values[i + half] - base;
      moment += (half + 1) * leaves + half * enters - sum;
      sum += enters - leaves;
      out[i] = perPlace * moment;
    }
    if (moment !== moment) isWhole = false;
  }
  return isWhole;
}

/**
 * The weights of whole windows slid over the values.
 * @returns whether no value is missing
 */
function slide(
  values: Float64Array,
  weights: Float64Array,
  { degree, order }: FilterOptions,
  out: Float64Array,
  from: number,
  end: number,
): boolean {
  return order === 1 && degree <= 2
    ? slideSlope(values, weights, out, from, end)
    : slideTaps(values, weights, order % 2 === 1, out, from, end);
}

const blockLength = 2048;

/**
 * The hot loop for other weights: symmetric or antisymmetric ones slid over the values, over blocks that stay in the cache.
 * @returns whether no value is missing
 */
function slideTaps(
  values: Float64Array,
  weights: Float64Array,
  antisymmetric: boolean,
  out: Float64Array,
  from: number,
  end: number,
): boolean {
  const half = (weights.length - 1) / 2;
  const sign = antisymmetric ? -1 : 1;
  let check = 0;
  for (let start = from; start < end; start += blockLength) {
    const stop = Math.min(start + blockLength, end);
    const middle = antisymmetric ? 0 : weights[half];
    // The middle reading takes part even with no weight: a missing one leaves its value missing.
    for (let i = start; i < stop; i++) out[i] = middle * values[i];
    let j = 1;
    // Four at a time read and write what comes out a quarter as often, and add in the same order.
    for (; j + 3 <= half; j += 4) {
      const [a, b, c, d] = [
        weights[half + j],
        weights[half + j + 1],
        weights[half + j + 2],
        weights[half + j + 3],
      ];
      for (let i = start, above = start + j, below = start - j; i < stop; i++, above++, below++)
        out[i] =
          out[i] +
          a * (values[above] + sign * values[below]) +
          b * (values[above + 1] + sign * values[below - 1]) +
          c * (values[above + 2] + sign * values[below - 2]) +
          d * (values[above + 3] + sign * values[below - 3]);
    }
    for (; j <= half; j++) {
      const w = weights[half + j];
      for (let i = start; i < stop; i++) out[i] += w * (values[i + j] + sign * values[i - j]);
    }
    for (let i = start; i < stop; i++) check += 0 * out[i];
  }
  return check === 0;
}

interface Rows {
  rowOf(i: number): WeightSpan;
  /** The part of some rows whose windows hang over no end of the run. */
  inner(low: number, high: number): [low: number, high: number];
  commonWeights(low: number, high: number): Float64Array | null;
  options: FilterOptions;
}

function filteredNoise(parent: NoisePath, rows: Rows): NoisePath {
  const spreadHere = (span: WeightSpan): WeightSpan => {
    const whole = rows.commonWeights(span.first, span.first + span.weights.length);
    if (whole !== null) return spreadCommon(span, whole, rows.options);
    const { first, weights } = withoutEdges(span);
    const [low, high] = rows.inner(first, first + weights.length);
    const common = low < high ? rows.commonWeights(low, high) : null;
    if (common === null) return spreadRows({ first, weights }, rows.rowOf);
    const part = (from: number, to: number): WeightSpan => ({
      first: from,
      weights: weights.subarray(from - first, to - first),
    });
    const middle = spreadCommon(part(low, high), common, rows.options);
    // Few rows, whose windows hang over an end of the run, have weights of their own.
    return [part(first, low), part(high, first + weights.length)]
      .filter((edge) => edge.weights.length > 0)
      .reduce((sum, edge) => addSpans(sum, spreadRows(edge, rows.rowOf)), middle);
  };
  return {
    root: parent.root,
    independent: false,
    spread: (weights) => parent.spread(spreadHere(weights)),
    row(i) {
      const here = rows.rowOf(i);
      return parent.independent ? here : parent.row(here.first) === null ? null : parent.spread(here);
    },
    isOrdinary(low, high) {
      const common = rows.commonWeights(low, high);
      if (common === null) return false;
      const half = (common.length - 1) / 2;
      return parent.isOrdinary(low - half, high + half);
    },
  };
}

/** Kept for the next time: weights are spread many times while a hand moves something. */
let room = new Float64Array(0);

/** Weights with nothing on both sides; they stand until the next ones are asked for. */
function paddedWith(weights: Float64Array, beside: number): Float64Array {
  const length = weights.length + 2 * beside;
  if (room.length < length) room = new Float64Array(2 * length);
  const padded = room.subarray(0, length);
  padded.fill(0, 0, beside);
  padded.set(weights, beside);
  padded.fill(0, beside + weights.length);
  return padded;
}

/** Weights spread over rows that are all the same but for a shift: the window turned round, slid over the weights. */
function spreadCommon({ first, weights }: WeightSpan, row: Float64Array, options: FilterOptions): WeightSpan {
  const half = (row.length - 1) / 2;
  const padded = paddedWith(weights, 2 * half);
  const spread = new Float64Array(padded.length);
  slide(padded, row, options, spread, half, padded.length - half);
  const out = spread.subarray(half, padded.length - half);
  // An odd window turned round is its own negative.
  if (options.order % 2 === 1) for (let i = 0; i < out.length; i++) out[i] = -out[i];
  return { first: first - half, weights: out };
}

/** Readings that have no part in something are none of those that it rests on. */
function withoutEdges({ first, weights }: WeightSpan): WeightSpan {
  let [low, high] = [0, weights.length];
  while (low < high && weights[low] === 0) low++;
  while (high > low && weights[high - 1] === 0) high--;
  return { first: first + low, weights: weights.subarray(low, high) };
}

function spreadRows({ first, weights }: WeightSpan, rowOf: (i: number) => WeightSpan): WeightSpan {
  let low = Infinity;
  let high = -Infinity;
  const rows: (WeightSpan | null)[] = [];
  for (let i = 0; i < weights.length; i++) {
    const row = weights[i] === 0 ? null : rowOf(first + i);
    rows.push(row);
    if (row === null) continue;
    low = Math.min(low, row.first);
    high = Math.max(high, row.first + row.weights.length);
  }
  if (high < low) return { first, weights: new Float64Array(0) };
  const out = new Float64Array(high - low);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i];
    if (row !== null) addScaled(out, row.weights, weights[i], row.first - low);
  }
  return { first: low, weights: out };
}
