import { square } from '../elementary';
import { normSquared, scaledSpan } from '../series/noisePath';
import { timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { cornerAt } from './corner';
import { type WeightedValue, LazyWeightedValue } from './cycles';
import { type Level, leastBiased } from './leastBiased';
import { localPolynomialWeights } from './localPolynomial';

/** A place where a series turns: a peak or a trough. */
export interface Turn {
  kind: 'peak' | 'trough';
  /** The greatest or least reading there. */
  index: number;
  time: WeightedValue;
  value: WeightedValue;
  /** It breaks there, and too few readings tell where: a parabola over both sides is all there is. */
  isUntold?: true;
}

/** A turn stands out from what is before and after it by this share of the whole range at least. */
const standsOut = 0.05;
/** And by so many standard deviations of the noise: two readings differ by that once in 10⁴. */
const aboveNoise = 6;
/**
 * A parabola is laid through what lies within this share of its height from the top, and of the way to the next turn. There it
 * is within 2 · 10⁻⁴ of the amplitude of a sine at its top. When it turns follows from a wider one: what a parabola misses is the
 * same on both sides.
 */
const heightShares = { depth: 0.12, way: 0.15 };
const timeShares = { depth: 0.4, way: 0.32 };
const mostBeside = 250;
/** Noise throws a reading so far from where it belongs once in 400. */
const thrown = 3;

/**
 * Peaks and troughs of an interval, in order. Each stands out from what is before and after it, clearly above the noise. Where
 * and how high it is, follows from the least-squares parabola through the readings at its top, so that noise does not choose the
 * highest one.
 */
export function turnsOf(series: Series, first = 0, past = series.values.length): Turn[] {
  const { values } = series;
  let [low, high] = [Infinity, -Infinity];
  for (let i = first; i < past; i++) {
    if (values[i] < low) low = values[i];
    if (values[i] > high) high = values[i];
  }
  if (!(high > low)) return [];
  const sigma = noiseOf(series, first, past);
  const least = Math.max(standsOut * (high - low), aboveNoise * sigma);
  const corners = cornersOf(values, first, past, least);
  // To two digits, so that a turn stays what it is while an end of the interval moves far from it.
  const noise = Number(sigma.toPrecision(2));
  let known = knownTurns.get(series);
  if (known === undefined || known.size > mostTurns)
    knownTurns.set(series, (known = new Map<string, Turn>()));
  const found: Turn[] = [];
  for (let k = 1; k + 1 < corners.length; k++) {
    const [before, here, after] = [corners[k - 1], corners[k], corners[k + 1]];
    const key = `${before}/${here}/${after}/${noise}`;
    let turn = known.get(key);
    if (turn === undefined) known.set(key, (turn = turnAt(series, before, here, after, noise)));
    found.push(turn);
  }
  return found;
}

/** What was found of turns; a series is never changed. */
const knownTurns = new WeakMap<Series, Map<string, Turn>>();
const mostTurns = 5000;

/** The turn at a reading between two others. */
function turnAt(series: Series, before: number, here: number, after: number, sigma: number): Turn {
  const { values } = series;
  const kind = values[here] > values[before] ? 'peak' : 'trough';
  const corner = cornerAt(series, { before, here, after }, sigma);
  const isUntold = corner === 'untold';
  if (corner !== null && !isUntold) return { kind, index: here, ...corner };
  const height = Math.min(Math.abs(values[here] - values[before]), Math.abs(values[here] - values[after]));
  const way = Math.min(here - before, after - here);
  const within = (shares: typeof heightShares): Top => ({
    depth: shares.depth * height + thrown * sigma,
    most: Math.min(Math.ceil(shares.way * way), mostBeside),
  });
  const wide = within(timeShares);
  const rough = vertexIn(series, polynomialAt(series, here, kind, wide), here, kind);
  // Once more about where it turned out to be, so that the reading that noise lifted most is not the middle of it all.
  const middle = rough === null ? here : nearest(series, rough, here, way);
  const timeAbout = (index: number) =>
    leastBiased(
      (level) => vertexOf(series, index, kind, closer(wide, level), level.degree),
      sigma,
      way <= coarse,
    );
  const time = timeAbout(middle) ?? (middle === here ? null : timeAbout(here));
  return {
    kind,
    index: here,
    ...(isUntold ? { isUntold } : {}),
    time: time ?? about(series, here, sigma),
    value:
      time === null
        ? readingAt(series, here)
        : (leastBiased(
            (level) =>
              polynomialAt(
                series,
                middle,
                kind,
                closer(within(heightShares), level),
                level.degree,
              )?.weightedAt(0, time.value) ?? null,
            sigma,
            way <= coarse,
          ) ?? readingAt(series, middle)),
  };
}

/**
 * When a series turns where no polynomial has a top, as at a plateau or beside missing readings: evenly anywhere among the readings that
 * noise does not tell from the greatest, and up to those beside them. Source of the standard deviation: GUM 4.3.7.
 */
function about({ values, sampling }: Series, here: number, sigma: number): WeightedValue {
  const isAsHigh = (i: number) => !(Math.abs(values[i] - values[here]) > thrown * sigma);
  let [before, after] = [here - 1, here + 1];
  while (before > 0 && isAsHigh(before)) before--;
  while (after < values.length - 1 && isAsHigh(after)) after++;
  const [from, to] = [Math.max(before, 0), Math.min(after, values.length - 1)].map((i) =>
    timeAt(sampling, i),
  );
  const spread = (to - from) / 2 / Math.sqrt(3);
  return {
    value: (from + to) / 2,
    weights: { first: here, weights: sigma === 0 ? new Float64Array(0) : Float64Array.of(spread / sigma) },
  };
}

/** A top of which a share of the width is taken; its depth goes with the square of that. */
const closer = ({ depth, most }: Top, { share }: Level): Top => ({
  depth: depth * square(share),
  most: Math.max(Math.ceil(most * share), 1),
});

/** So many readings from one turn to the next are few. */
const coarse = 16;
/** Below this share of a way, a step is rounding. */
const rounding = 1e-9;

/** Standard deviation that noise gives to one value of an interval. */
export function noiseOf({ noise }: Series, first: number, past: number): number {
  if (noise === null) return 0;
  const sigma = noise.root.level.between(first, past).standardDeviation;
  const row = noise.independent ? null : noise.row((first + past) >> 1);
  const of = row === null ? sigma : sigma * Math.sqrt(normSquared(row.weights));
  return Number.isFinite(of) ? of : 0;
}

/** Ends and turns by turns: each stands off from the next by `least` at least. */
function cornersOf(values: Float64Array, first: number, past: number, least: number): number[] {
  const corners: number[] = [];
  let [top, bottom] = [-1, -1];
  /** 1 while it rises, −1 while it falls, 0 while nobody knows. */
  let direction = 0;
  for (let i = first; i < past; i++) {
    const value = values[i];
    if (Number.isNaN(value)) continue;
    if (top < 0 || value > values[top]) top = i;
    if (bottom < 0 || value < values[bottom]) bottom = i;
    if (direction >= 0 && value <= values[top] - least) {
      corners.push(top);
      direction = -1;
      bottom = i;
    } else if (direction <= 0 && value >= values[bottom] + least) {
      corners.push(bottom);
      direction = 1;
      top = i;
    }
  }
  if (direction === 1) corners.push(top);
  if (direction === -1) corners.push(bottom);
  return corners;
}

/** How far a top reaches: so deep below it, and so many readings to either side at most. */
interface Top {
  depth: number;
  most: number;
}

const readingAt = ({ values }: Series, index: number): WeightedValue => ({
  value: values[index],
  weights: { first: index, weights: Float64Array.of(1) },
});

/** The reading nearest to a moment, not further than a way from another one. */
function nearest({ sampling, values }: Series, at: number, from: number, way: number): number {
  if (sampling.kind === 'regular') {
    const there = Math.round((at - sampling.start) / sampling.interval);
    const isThere = Math.abs(there - from) <= way && there >= 0 && there < values.length;
    if (isThere && !Number.isNaN(values[there])) return there;
  }
  let best = from;
  for (let i = Math.max(from - way, 0); i <= Math.min(from + way, values.length - 1); i++)
    if (
      !Number.isNaN(values[i]) &&
      Math.abs(timeAt(sampling, i) - at) < Math.abs(timeAt(sampling, best) - at)
    )
      best = i;
  return best;
}

/** The least-squares polynomial through the readings at a top; null where there are too few. */
function polynomialAt(
  { values, sampling }: Series,
  index: number,
  kind: Turn['kind'],
  { depth, most }: Top,
  degree: Level['degree'] = 2,
): Polynomial | null {
  const sign = kind === 'peak' ? 1 : -1;
  const reaches = (step: 1 | -1) => {
    let beside = degree / 2;
    while (beside < most) {
      const value = values[index + step * (beside + 1)];
      // A missing reading does not end the top.
      if (sign * (values[index] - value) > depth) break;
      beside++;
    }
    return beside;
  };
  const [left, right] = [Math.max(index - reaches(-1), 0), Math.min(index + reaches(1), values.length - 1)];
  let missing = 0;
  for (let i = left; i <= right; i++) if (Number.isNaN(values[i])) missing++;
  const length = right - left + 1;
  if (length - missing < degree + 1) return null;
  const here = timeAt(sampling, index);
  const weights = weightsAt({ values, sampling }, index, { left, length, missing, degree });
  const dots = weights.map((row) => {
    let sum = 0;
    // What is missing has no weight.
    for (let i = 0; i < length; i++) if (row[i] !== 0) sum += row[i] * values[left + i];
    return sum;
  });
  /** How each derivative at the reading tells on the one of an order at a moment. */
  const factorsOf = (order: number, at: number) => {
    let factor = 1;
    return dots.map((_, k) => {
      if (k < order) return 0;
      if (k > order) factor *= (at - here) / (k - order);
      return factor;
    });
  };
  const value = (order: number, at: number) =>
    factorsOf(order, at).reduce((sum, factor, k) => sum + factor * dots[k], 0);
  return {
    first: left,
    past: right + 1,
    value,
    weightedAt: (order, at) =>
      new LazyWeightedValue(value(order, at), () => {
        const out = new Float64Array(length);
        factorsOf(order, at).forEach((factor, k) => {
          const row = weights[k];
          if (factor !== 0) for (let i = 0; i < out.length; i++) out[i] += factor * row[i];
        });
        return { first: left, weights: out };
      }),
  };
}

/** A polynomial through readings: itself (order 0), its slope (1) or its bend (2) at a moment. */
interface Polynomial {
  first: number;
  past: number;
  value(order: number, at: number): number;
  weightedAt(order: number, at: number): WeightedValue;
}

/** By the interval of readings, then by where among how many the middle one stands. */
const knownWeights = new Map<number, Map<number, Float64Array[]>>();
const mostKnown = 2000;
const mostIntervals = 20;

function knownAt(interval: number): Map<number, Float64Array[]> {
  let known = knownWeights.get(interval);
  if (known === undefined) {
    if (knownWeights.size >= mostIntervals) knownWeights.clear();
    knownWeights.set(interval, (known = new Map()));
  }
  return known;
}

/** Weights for value, slope, bend … of a polynomial at one of its readings; those of windows alike are made once. */
function weightsAt(
  { values, sampling }: Pick<Series, 'values' | 'sampling'>,
  index: number,
  {
    left,
    length,
    missing,
    degree,
  }: { left: number; length: number; missing: number; degree: Level['degree'] },
): Float64Array[] {
  const known = sampling.kind === 'regular' && missing === 0 ? knownAt(sampling.interval) : null;
  const place = ((index - left) * (2 * mostBeside + 2) + length) * 8 + degree;
  const before = known?.get(place);
  if (before !== undefined) return before;
  const present: number[] = [];
  for (let i = left; i < left + length; i++) if (!Number.isNaN(values[i])) present.push(i);
  // Counted from the reading, so that windows alike are the same to the last bit.
  const times = present.map((i) =>
    sampling.kind === 'regular'
      ? (i - index) * sampling.interval
      : timeAt(sampling, i) - timeAt(sampling, index),
  );
  const made = Array.from({ length: degree + 1 }, (_, order) => {
    const solved = localPolynomialWeights(times, 0, degree, order);
    const out = new Float64Array(length);
    present.forEach((i, k) => (out[i - left] = solved[k]));
    return out;
  });
  if (known !== null) {
    if (known.size >= mostKnown) known.clear();
    known.set(place, made);
  }
  return made;
}

/** When a polynomial turns about a reading; null where it has no top within its readings. */
function vertexIn(
  { sampling }: Series,
  polynomial: Polynomial | null,
  index: number,
  kind: Turn['kind'],
): number | null {
  if (polynomial === null) return null;
  const [from, to] = [timeAt(sampling, polynomial.first), timeAt(sampling, polynomial.past - 1)];
  let vertex = timeAt(sampling, index);
  // One step for a parabola; what bends otherwise takes a few.
  for (let step = 0; step < mostNewton; step++) {
    const bend = polynomial.value(2, vertex);
    if (!((kind === 'peak' ? 1 : -1) * bend < 0)) return null;
    const by = polynomial.value(1, vertex) / bend;
    vertex -= by;
    if (vertex < from || vertex > to) return null;
    if (Math.abs(by) <= rounding * (to - from)) break;
  }
  return vertex;
}

const mostNewton = 12;

/** When a series turns, and how each reading moves that: by its slope there, over its bend. */
function vertexOf(
  series: Series,
  index: number,
  kind: Turn['kind'],
  top: Top,
  degree: Level['degree'],
): WeightedValue | null {
  const polynomial = polynomialAt(series, index, kind, top, degree);
  const vertex = vertexIn(series, polynomial, index, kind);
  if (polynomial === null || vertex === null) return null;
  const slope = polynomial.weightedAt(1, vertex);
  const bend = polynomial.value(2, vertex);
  return new LazyWeightedValue(vertex, () => scaledSpan(slope.weights, -1 / bend));
}
