import { square } from '../elementary';
import { linearLeastSquares } from '../fitting/linear';

/** Accelerations of something that ran freely along a track once each way, in the unit of position over seconds squared. */
export interface BothWays {
  forth: number;
  back: number;
  /** Their mean: what pulls it one way whichever way it runs. Friction turns round with it and is not in it. */
  along: number;
  /** Standard uncertainty of that, from how the readings scatter about the parabolas. */
  uncertainty: number;
}

const fewest = 8;
/** Of a stretch, so much is left out at each end, where a hand pushes it or catches it. */
const leftOut = 0.15;
/** What is slower than this share of the fastest does not run freely. */
const slow = 0.1;

interface Stretch {
  first: number;
  last: number;
}

/**
 * How something was accelerated while it ran one way, and the other way: a parabola through the longest stretch of each.
 * @param times in seconds, ascending @param positions NaN where there is none
 * @returns null where it did not run both ways for long enough
 */
export function bothWays(times: Float64Array, positions: Float64Array): BothWays | null {
  const speeds = speedsOf(times, positions);
  const fastest = speeds.reduce(
    (most, speed) => (Number.isFinite(speed) ? Math.max(most, Math.abs(speed)) : most),
    0,
  );
  if (fastest === 0) return null;
  const found = [1, -1].map((way) => longest(times, speeds, (speed) => way * speed > slow * fastest));
  const fits = found.map((stretch) => (stretch === null ? null : accelerationIn(times, positions, stretch)));
  const [forth, back] = fits;
  if (forth === null || back === null) return null;
  return {
    forth: forth.value,
    back: back.value,
    along: (forth.value + back.value) / 2,
    uncertainty: Math.hypot(forth.uncertainty, back.uncertainty) / 2,
  };
}

/** Slopes of short lines through the readings about each, some tenths of a second long. */
function speedsOf(times: Float64Array, positions: Float64Array): Float64Array {
  const n = times.length;
  const interval = n > 1 ? (times[n - 1] - times[0]) / (n - 1) : 0;
  const half = Math.max(1, Math.round(0.1 / Math.max(interval, 1e-6)));
  return Float64Array.from(times, (_, i) => {
    const [from, to] = [Math.max(0, i - half), Math.min(n - 1, i + half)];
    return (positions[to] - positions[from]) / (times[to] - times[from]);
  });
}

function longest(
  times: Float64Array,
  speeds: Float64Array,
  runs: (speed: number) => boolean,
): Stretch | null {
  let best: Stretch | null = null;
  let first = -1;
  for (let i = 0; i <= speeds.length; i++) {
    if (i < speeds.length && runs(speeds[i])) {
      if (first < 0) first = i;
      continue;
    }
    if (first >= 0 && (best === null || times[i - 1] - times[first] > times[best.last] - times[best.first]))
      best = { first, last: i - 1 };
    first = -1;
  }
  return best;
}

function accelerationIn(
  times: Float64Array,
  positions: Float64Array,
  { first, last }: Stretch,
): { value: number; uncertainty: number } | null {
  const trim = Math.floor((last - first) * leftOut);
  const places: number[] = [];
  for (let i = first + trim; i <= last - trim; i++) if (Number.isFinite(positions[i])) places.push(i);
  const n = places.length;
  if (n < fewest) return null;
  const t = Float64Array.from(places, (i) => times[i]);
  const length = t[n - 1] - t[0];
  const middle = (t[0] + t[n - 1]) / 2;
  const { parameters, residualSumOfSquares } = linearLeastSquares(
    (from, [ones, linear, curved]) => {
      for (let i = 0; i < ones.length; i++) {
        const u = (t[from + i] - middle) / length;
        ones[i] = 1;
        linear[i] = u;
        curved[i] = u * u;
      }
    },
    3,
    Float64Array.from(places, (i) => positions[i]),
    'the readings do not tell a parabola',
  );
  const scatter = Math.sqrt(residualSumOfSquares / (n - 3));
  // The square of evenly spaced times has the variance T⁴/180 beside a line (closed form for many readings).
  return {
    value: (2 * parameters[2]) / square(length),
    uncertainty: (2 * scatter * Math.sqrt(180 / n)) / square(length),
  };
}
