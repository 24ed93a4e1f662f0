import { type Stretch, addStretches, normSquared, scaledStretch } from '../series/noisePath';
import { timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { type Told } from './cycles';
import { localPolynomialWeights } from './localPolynomial';

/** A place where a series turns: a peak or a trough. */
export interface Turn {
  kind: 'peak' | 'trough';
  /** The greatest or least reading there. */
  index: number;
  time: Told;
  value: Told;
}

/** A turn stands out from what is before and after it by this share of the whole range at least. */
const standsOut = 0.05;
/** And by so many standard deviations of the noise: two readings differ by that once in 10⁴. */
const aboveNoise = 6;
/**
 * A parabola is laid through what lies within this share of its height from the top, and of the way to the next turn. There it
 * is within 2 · 10⁻⁴ of the amplitude of a sine at its top. When it turns is told by a wider one: what a parabola misses is the
 * same on both sides.
 */
const heightShares = { depth: 0.12, way: 0.15 };
const timeShares = { depth: 0.4, way: 0.32 };
const mostBeside = 250;
/** Noise throws a reading so far from where it belongs once in 400. */
const thrown = 3;

/**
 * Peaks and troughs of a stretch, in order. Each stands out from what is before and after it, clearly above the noise. Where
 * and how high it is, is told by the least-squares parabola through the readings at its top, so that noise does not choose the
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
  const found: Turn[] = [];
  for (let k = 1; k + 1 < corners.length; k++) {
    const [before, here, after] = [corners[k - 1], corners[k], corners[k + 1]];
    const kind = values[here] > values[before] ? 'peak' : 'trough';
    const height = Math.min(Math.abs(values[here] - values[before]), Math.abs(values[here] - values[after]));
    const way = Math.min(here - before, after - here);
    const within = (shares: typeof heightShares): Top => ({
      depth: shares.depth * height + thrown * sigma,
      most: Math.min(Math.ceil(shares.way * way), mostBeside),
    });
    const vertex = vertexOf(series, here, kind, within(timeShares));
    // Once more about where it turned out to be, so that the reading that noise lifted most is not the middle of it all.
    const middle = vertex === null ? here : nearest(series, vertex.value, here, way);
    const time = (middle === here ? vertex : vertexOf(series, middle, kind, within(timeShares))) ?? vertex;
    found.push({
      kind,
      index: here,
      time: time ?? {
        value: timeAt(series.sampling, here),
        weights: { first: here, weights: new Float64Array(0) },
      },
      value:
        time === null
          ? readingAt(series, here)
          : heightAt(series, middle, kind, time.value, within(heightShares)),
    });
  }
  return found;
}

/** Standard deviation that noise gives to one value of a stretch. */
function noiseOf({ noise }: Series, first: number, past: number): number {
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

const readingAt = ({ values }: Series, index: number): Told => ({
  value: values[index],
  weights: { first: index, weights: Float64Array.of(1) },
});

/** The reading nearest to a moment, not further than a way from another one. */
function nearest({ sampling, values }: Series, at: number, from: number, way: number): number {
  let best = from;
  for (let i = Math.max(from - way, 0); i <= Math.min(from + way, values.length - 1); i++)
    if (
      !Number.isNaN(values[i]) &&
      Math.abs(timeAt(sampling, i) - at) < Math.abs(timeAt(sampling, best) - at)
    )
      best = i;
  return best;
}

/** The least-squares parabola through the readings at a top; null where there are less than three. */
function parabolaAt(
  { values, sampling }: Series,
  index: number,
  kind: Turn['kind'],
  { depth, most }: Top,
): ((order: number, at: number) => Told) | null {
  const sign = kind === 'peak' ? 1 : -1;
  const reaches = (step: 1 | -1) => {
    let beside = 1;
    while (beside < most) {
      const value = values[index + step * (beside + 1)];
      // A missing reading does not end the top.
      if (sign * (values[index] - value) > depth) break;
      beside++;
    }
    return beside;
  };
  const [left, right] = [Math.max(index - reaches(-1), 0), Math.min(index + reaches(1), values.length - 1)];
  const places: number[] = [];
  for (let i = left; i <= right; i++) if (!Number.isNaN(values[i])) places.push(i);
  if (places.length < 3) return null;
  const times = places.map((i) => timeAt(sampling, i));
  const asStretch = (weights: ArrayLike<number>): Stretch => {
    const out = new Float64Array(right - left + 1);
    places.forEach((place, k) => (out[place - left] = weights[k]));
    return { first: left, weights: out };
  };
  return (order, at) => {
    const weights = localPolynomialWeights(times, at, 2, order);
    return {
      value: places.reduce((sum, place, k) => sum + weights[k] * values[place], 0),
      weights: asStretch(weights),
    };
  };
}

/** When a series turns: where its parabola does; null where that has no top within its readings. */
function vertexOf(series: Series, index: number, kind: Turn['kind'], top: Top): Told | null {
  const told = parabolaAt(series, index, kind, top);
  if (told === null) return null;
  const here = timeAt(series.sampling, index);
  const [slope, bend] = [told(1, here), told(2, here)];
  if (!((kind === 'peak' ? 1 : -1) * bend.value < 0)) return null;
  const vertex = here - slope.value / bend.value;
  const { first, weights } = slope.weights;
  const [from, to] = [first, first + weights.length - 1].map((i) => timeAt(series.sampling, i));
  if (vertex < from || vertex > to) return null;
  return {
    value: vertex,
    weights: addStretches(
      scaledStretch(slope.weights, -1 / bend.value),
      scaledStretch(bend.weights, slope.value / bend.value ** 2),
    ),
  };
}

/** How high a turn is. At the vertex the slope is zero: what moves the vertex does not move its height. */
const heightAt = (series: Series, index: number, kind: Turn['kind'], at: number, top: Top): Told =>
  parabolaAt(series, index, kind, top)?.(0, at) ?? readingAt(series, index);
