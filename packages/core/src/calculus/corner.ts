import { square } from '../elementary';
import { type WeightSpan, addSpans, normSquared, scaledSpan } from '../series/noisePath';
import { timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { type WeightedValue, LazyWeightedValue } from './cycles';
import { localPolynomialWeights } from './localPolynomial';

/**
 * Of each side so much of its height is taken, beyond which a swing bends the other way, but so many readings at least, since with fewer
 * nothing tells whether a parabola fits them, and so many at most.
 */
const depth = 0.75;
const [fewest, most] = [5, 250];
/** At a corner each side comes in with this share of its mean slope at the least; at a smooth top it has hardly any left. */
const steep = 0.7;
/** A side is steep for sure where it is that by so many of its standard deviations, and smooth where it is not by so many. */
const [clearly, hardly] = [5, 3];

/** An extreme reading, and the next turns or ends before and after it, by their places among the readings. */
interface Around {
  before: number;
  here: number;
  after: number;
}

/**
 * A turn at which a series does not bend but breaks, as where a ball meets the floor: where the parabola before it and the one after it
 * meet. One parabola over both would round the corner off.
 * @param sigma standard deviation of the noise of one reading
 * @returns null where it bends; 'untold' where it breaks, but too few readings tell where
 */
export function cornerAt(
  series: Series,
  around: Around,
  sigma: number,
): { time: WeightedValue; value: WeightedValue } | 'untold' | null {
  const { sampling, values } = series;
  const { here } = around;
  const place = timeAt(sampling, here);
  const rough = sidesOf(series, around, sigma, place, 0);
  // The reading at the top belongs to the side on which the corner leaves it; where few are left, it may be the one that lacks.
  const told =
    rough.at === null
      ? (withTheTop(series, around, sigma) ?? rough)
      : sidesOf(series, around, sigma, rough.at, spared);
  const { left, right, at } = told;
  const middle = at ?? place;
  const near = [left, right].filter((side): side is Side => side !== null && side.misfit <= square(farOff));
  // A swing that is read coarsely bends on both sides as no parabola does.
  if (near.length === 0) return null;
  const steepness = near.map((side) => steepnessOf(side, middle, sigma));
  const isBroken = Math.max(...steepness) >= clearly && Math.min(...steepness) > -hardly;
  if (!isBroken) return null;
  const fit = Math.max(...near.map(({ misfit }) => misfit)) <= 1;
  const isTold = fit && near.length === 2;
  if (!isTold && !isFarBetter(series, here, near, fit ? limitOf(sigma, about - 5) : null)) return null;
  // The run ends too soon; or one side alone bends: a reading there is off, or the next corner too near.
  if (left === null || right === null || at === null || near.length === 1) return 'untold';
  const change = right.slope(at) - left.slope(at);
  const noiseOf = (order: 0 | 1) =>
    sigma * Math.sqrt(normSquared(addSpans(left.weights(order, at), right.weights(order, at), -1).weights));
  const [uncertain, ofChange] = [noiseOf(0) / Math.abs(change), noiseOf(1)];
  if (left.slope(at) * right.slope(at) > 0 || !(Math.abs(change) > clearly * ofChange)) return null;
  const [first, last] = [Math.max(here - 1, 0), Math.min(here + 1, values.length - 1)];
  // What is rounded off in truth, as where something soft is met, seems to break elsewhere.
  if (at < timeAt(sampling, first) - hardly * uncertain || at > timeAt(sampling, last) + hardly * uncertain)
    return null;
  const later = (): WeightSpan =>
    scaledSpan(addSpans(left.weights(0, at), right.weights(0, at), -1), 1 / change);
  return {
    time: new LazyWeightedValue(at, later),
    value: new LazyWeightedValue(left.value(at), () =>
      addSpans(left.weights(0, at), later(), left.slope(at)),
    ),
  };
}

/** The sides where one of them has enough readings only with the one at the top; null where nobody can tell whether that is on it. */
function withTheTop(series: Series, around: Around, sigma: number): Sides | null {
  const place = timeAt(series.sampling, around.here);
  for (const step of [-1, 1]) {
    const beside = around.here + step;
    if (beside < 0 || beside >= series.values.length) continue;
    const away = timeAt(series.sampling, beside) - place;
    const sides = sidesOf(series, around, sigma, place + away / 2, spared);
    if (sides.at !== null && (sides.at - place) / away > spared) return sides;
  }
  return null;
}

/** By how many standard deviations a side comes in steeper than a smooth top does; negative where it is smoother. */
function steepnessOf({ slope, value, end, weights }: Side, at: number, sigma: number): number {
  const mean = (value(end) - value(at)) / (end - at);
  const over = (slope(at) - steep * mean) * Math.sign(mean);
  const uncertain = sigma * Math.sqrt(normSquared(weights(1, at).weights));
  return over / Math.max(uncertain, Math.abs(mean) * least);
}

/** What lies so near a corner, in intervals of readings, is on neither side: noise may have thrown it across. */
const spared = 0.25;
/** So many places a side reaches at the least, past a turn too: the flight of a ball is one parabola up and down. */
const reach = 8;
/** Noise is known roughly, and no motion is a parabola for ever: only what is so many times as large as noise leaves over is another thing. */
const farOff = 5;
/** Where noise is known too roughly, one smooth curve has to leave over so many times as much, in squares, as the two sides. */
const farBetter = 100;
/** That curve is of fourth degree, through so many readings. */
const about = 7;
/** Rounding alone makes no corner. */
const least = 1e-6;

/** A parabola through the readings of one side. */
interface Side {
  /** The moment of its reading farthest from the corner, up to the next turn. */
  end: number;
  /** The sum of squares that it leaves over, for each free value. */
  leftOver: number;
  /** That, as a share of the most that noise leaves over: beyond 1 once in 10⁴. */
  misfit: number;
  value(at: number): number;
  slope(at: number): number;
  /** How each reading moves its value (order 0) or its slope (1) at a moment. */
  weights(order: 0 | 1, at: number): WeightSpan;
}

interface Sides {
  /** Where their parabolas meet. */
  at: number | null;
  left: Side | null;
  right: Side | null;
}

/** The sides of a moment, and where their parabolas meet. @param spare the share of an interval about it that is on neither */
function sidesOf(
  series: Series,
  { before, here, after }: Around,
  sigma: number,
  moment: number,
  spare: number,
): Sides {
  const [left, right] = [before, after].map((next) => {
    let places = placesOf(series, here, next, moment, spare);
    if (places.length < fewest) return null;
    let side = sideOf(series, places, next, sigma, moment);
    // What a long side does besides, as where a cart is slowed down, a shorter one hardly shows.
    while (side.misfit > 1 && places.length > fewest) {
      places = places.slice(0, Math.max(places.length >> 1, fewest));
      side = sideOf(series, places, next, sigma, moment);
    }
    return side;
  });
  if (left === null || right === null) return { at: null, left, right };
  let at = moment;
  for (let step = 0; step < 6; step++)
    at -= (right.value(at) - left.value(at)) / (right.slope(at) - left.slope(at));
  return { at: Number.isFinite(at) ? at : null, left, right };
}

/** The readings of a side, from the corner on. */
function placesOf(
  { values, sampling }: Series,
  here: number,
  next: number,
  moment: number,
  spare: number,
): number[] {
  const step = Math.sign(next - here);
  const height = Math.abs(values[next] - values[here]);
  const apart = spare * Math.abs(timeAt(sampling, here + step) - timeAt(sampling, here));
  const past = here + step * Math.max(Math.abs(next - here), reach);
  const present: number[] = [];
  // The corner may lie beyond the reading at the top.
  for (let i = here - step; i !== past + step && present.length < most; i += step) {
    const isBeside = spare === 0 ? step * (i - here) > 0 : step * (timeAt(sampling, i) - moment) > apart;
    if (!isBeside || i < 0 || i >= values.length || Number.isNaN(values[i])) continue;
    if (present.length >= fewest && Math.abs(values[i] - values[here]) > depth * height) break;
    present.push(i);
  }
  return present;
}

function sideOf(
  series: Series,
  places: readonly number[],
  next: number,
  sigma: number,
  moment: number,
): Side {
  const { values, sampling } = series;
  const present = [...places];
  present.sort((a, b) => a - b);
  const [first, last] = [present[0], present[present.length - 1]];
  const { rows, derivatives, leftOver } = polynomialThrough(series, present, moment, 2);
  const [a, b, c] = derivatives;
  const ofNoise = limitOf(sigma, present.length - 3);
  return {
    end: timeAt(sampling, first <= next && next <= last ? next : places[places.length - 1]),
    leftOver,
    misfit: leftOver / (ofNoise + square(least * (values[first] - values[last]))),
    value: (at) => a + b * (at - moment) + (c * square(at - moment)) / 2,
    slope: (at) => b + c * (at - moment),
    weights: (order, at) => {
      const by = at - moment;
      const factors = order === 0 ? [1, by, square(by) / 2] : [0, 1, by];
      return {
        first,
        weights: Float64Array.from({ length: last - first + 1 }, (_, i) =>
          factors.reduce((sum, factor, k) => sum + factor * rows[k][i], 0),
        ),
      };
    },
  };
}

/**
 * Whether one smooth curve across leaves over what its sides do not.
 * @param limit the most that noise leaves over of it; null where noise is known too roughly to tell, so that it is compared with the sides
 */
function isFarBetter(series: Series, here: number, sides: readonly Side[], limit: number | null): boolean {
  const { values, sampling } = series;
  const places: number[] = [];
  for (let i = Math.max(here - about, 0); i <= Math.min(here + about, values.length - 1); i++)
    if (!Number.isNaN(values[i])) places.push(i);
  const closest = places
    .sort((a, b) => Math.abs(a - here) - Math.abs(b - here))
    .slice(0, about)
    .sort((a, b) => a - b);
  if (closest.length < about) return false;
  const { leftOver } = polynomialThrough(series, closest, timeAt(sampling, here), 4);
  return leftOver > (limit ?? farBetter * Math.max(...sides.map((side) => side.leftOver)));
}

/** What noise leaves over at the most, for each of so many free values: more once in 10⁴. */
const limitOf = (sigma: number, free: number): number =>
  square(sigma) * (1 + 4 * Math.sqrt(2 / free) + 8 / free);

/**
 * The least-squares polynomial through some readings, in order.
 * @returns its derivatives at a moment, from itself on; how each reading from the first to the last moves them; and what it leaves over,
 * as a sum of squares for each free value
 */
function polynomialThrough(
  { values, sampling }: Series,
  places: readonly number[],
  moment: number,
  degree: 2 | 4,
): { rows: Float64Array[]; derivatives: number[]; leftOver: number } {
  const [first, last] = [places[0], places[places.length - 1]];
  const times = places.map((i) => timeAt(sampling, i) - moment);
  const rows = Array.from({ length: degree + 1 }, (_, order) => {
    const solved = localPolynomialWeights(times, 0, degree, order);
    const out = new Float64Array(last - first + 1);
    places.forEach((i, k) => (out[i - first] = solved[k]));
    return out;
  });
  const derivatives = rows.map((row) =>
    row.reduce((sum, weight, i) => (weight === 0 ? sum : sum + weight * values[first + i]), 0),
  );
  const at = (time: number) => derivatives.reduceRight((sum, value, k) => (sum * time) / (k + 1) + value, 0);
  const squares = places.reduce((sum, i, k) => sum + square(values[i] - at(times[k])), 0);
  return { rows, derivatives, leftOver: squares / (places.length - degree - 1) };
}
