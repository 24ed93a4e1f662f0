import { square } from '../elementary';
import { type WeightSpan, addSpans, normSquared, scaledSpan } from '../series/noisePath';
import { timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { type WeightedValue, LazyWeightedValue } from './cycles';
import { localPolynomialWeights } from './localPolynomial';

/** Of each side so much of its height is taken, beyond which a swing bends the other way, and so many readings at least and at most. */
const depth = 0.75;
const [fewest, most] = [3, 250];
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
  const rough = sidesOf(series, around, place, 0);
  // The reading at the top belongs to the side on which the corner leaves it.
  const told = rough.at === null ? rough : sidesOf(series, around, rough.at, 0.25);
  const { left, right, at } = told;
  const about = at ?? place;
  const steepness = [left, right].map((side) => (side === null ? 0 : steepnessOf(side, about, sigma)));
  const isBroken = Math.max(...steepness) >= clearly && Math.min(...steepness) > -hardly;
  if (!isBroken) return null;
  if (left === null || right === null || at === null) return 'untold';
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

/** By how many standard deviations a side comes in steeper than a smooth top does; negative where it is smoother. */
function steepnessOf({ slope, value, end, weights }: Side, at: number, sigma: number): number {
  const mean = (value(end) - value(at)) / (end - at);
  const over = (slope(at) - steep * mean) * Math.sign(mean);
  const uncertain = sigma * Math.sqrt(normSquared(weights(1, at).weights));
  return over / Math.max(uncertain, Math.abs(mean) * least);
}

/** Rounding alone makes no corner. */
const least = 1e-6;

/** A parabola through the readings of one side. */
interface Side {
  /** The moment of its reading farthest from the corner. */
  end: number;
  value(at: number): number;
  slope(at: number): number;
  /** How each reading moves its value (order 0) or its slope (1) at a moment. */
  weights(order: 0 | 1, at: number): WeightSpan;
}

/** The sides of a moment, and where their parabolas meet. @param spare the share of an interval about it that is on neither */
function sidesOf(
  series: Series,
  { before, here, after }: Around,
  moment: number,
  spare: number,
): { at: number | null; left: Side | null; right: Side | null } {
  const left = sideOf(series, here, before, moment, spare);
  const right = sideOf(series, here, after, moment, spare);
  if (left === null || right === null) return { at: null, left, right };
  let at = moment;
  for (let step = 0; step < 6; step++)
    at -= (right.value(at) - left.value(at)) / (right.slope(at) - left.slope(at));
  return { at: Number.isFinite(at) ? at : null, left, right };
}

function sideOf(
  { values, sampling }: Series,
  here: number,
  next: number,
  moment: number,
  spare: number,
): Side | null {
  const step = Math.sign(next - here);
  const height = Math.abs(values[next] - values[here]);
  const apart = spare * Math.abs(timeAt(sampling, here + step) - timeAt(sampling, here));
  const present: number[] = [];
  // The corner may lie beyond the reading at the top.
  for (let i = here - step; i !== next + step && present.length < most; i += step) {
    const isBeside = spare === 0 ? step * (i - here) > 0 : step * (timeAt(sampling, i) - moment) > apart;
    if (!isBeside || i < 0 || i >= values.length || Number.isNaN(values[i])) continue;
    if (present.length >= fewest && Math.abs(values[i] - values[here]) > depth * height) break;
    present.push(i);
  }
  if (present.length < fewest) return null;
  present.sort((a, b) => a - b);
  const [first, last] = [present[0], present[present.length - 1]];
  const times = present.map((i) => timeAt(sampling, i) - moment);
  const rows = ([0, 1, 2] as const).map((order) => {
    const solved = localPolynomialWeights(times, 0, 2, order);
    const out = new Float64Array(last - first + 1);
    present.forEach((i, k) => (out[i - first] = solved[k]));
    return out;
  });
  const [a, b, c] = rows.map((row) =>
    row.reduce((sum, weight, i) => (weight === 0 ? sum : sum + weight * values[first + i]), 0),
  );
  return {
    end: timeAt(sampling, step < 0 ? first : last),
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
