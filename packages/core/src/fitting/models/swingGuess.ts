import { sinCos, log2, pow, square } from '../../elementary';
import { fourierOf } from '../../spectrum/fourier';

const { PI } = Math;

/** Points of a possible swing, on u ∈ [−1, 1]. */
export interface Swing {
  u: Float64Array;
  y: Float64Array;
  /** Spacing of u where it is regular. */
  step: number | null;
  /** Whether a straight line lies under the swing. */
  onLine: boolean;
}

/** Where a search for a swing may start. */
export interface SwingSearch {
  /** Angular frequencies with what is left over when offset, line, sine and cosine are fitted to them, best first. */
  candidates: { angular: number; leftOver: number }[];
  /** What no swing leaves over. */
  total: number;
  /** What a swing of a frequency leaves over, found from few points where it is slow. */
  leftOverAt(angular: number): number;
}

/** A swing with more cycles than this is not found by binned points. */
export const mostBinnedCycles = 200;

/**
 * Candidate frequencies for a swing. The least-squares sum over the frequency has about one minimum per cycle that fits into
 * the interval, so it is walked on a grid of an eighth of a cycle: the slow end directly on the points, the fast end where the
 * spectrum of the points has its peaks.
 */
export function searchSwing(swing: Swing, fewestCycles: number, mostCycles: number): SwingSearch {
  const flat = swing.onLine ? { ...swing, y: withoutLine(swing) } : swing;
  const { u, y } = flat;
  const n = y.length;
  const { total } = explainedAt(u, y, PI);
  const found: { angular: number; leftOver: number }[] = [];
  // Binning takes away from fast swings, so what counts is how much of the whole scatter a candidate explains.
  const leftBy = (points: Swing, angular: number) =>
    total - (explainedAt(points.u, points.y, angular).explained * n) / points.y.length;
  const slow = binned(flat, 256);
  const fast = binned(flat, 2048);
  const leftOverAt = (angular: number) =>
    leftBy(Math.abs(angular) < mostBinnedCycles * PI ? fast : flat, angular);
  for (let cycles = fewestCycles; cycles <= Math.min(6, mostCycles); cycles += 0.125)
    found.push({ angular: PI * cycles, leftOver: leftBy(slow, PI * cycles) });
  const considerPeaks = (mostPoints: number) => {
    for (const cycles of spectrumPeaks(flat, 6, mostPoints))
      if (cycles > 5 && cycles < mostCycles)
        found.push({ angular: PI * cycles, leftOver: leftOverAt(PI * cycles) });
  };
  considerPeaks(4096);
  // Bins hide swings faster than themselves: where too little is explained, the full spectrum is worth its time.
  if (n > 4096 && found.every(({ leftOver }) => leftOver > 0.5 * total)) considerPeaks(2 ** 17);
  found.sort(leastLeftFirst);
  return { candidates: found.slice(0, 5), total, leftOverAt };
}

/** The readings less their least-squares line. */
function withoutLine({ u, y }: Swing): Float64Array {
  const n = u.length;
  let meanU = 0;
  let meanY = 0;
  for (let i = 0; i < n; i++) {
    meanU += u[i] / n;
    meanY += (y[i] - y[0]) / n;
  }
  let uu = 0;
  let uy = 0;
  for (let i = 0; i < n; i++) {
    uu += square(u[i] - meanU);
    uy += (u[i] - meanU) * (y[i] - y[0] - meanY);
  }
  const slope = uu > 0 ? uy / uu : 0;
  return y.map((value, i) => value - slope * (u[i] - meanU));
}

/** Means of the points in equal intervals of u; the points themselves where they are few. */
export function binned(swing: Swing, bins: number): Swing {
  const { u, y } = swing;
  const n = u.length;
  if (n <= bins) return swing;
  const sumX = new Float64Array(bins);
  const sumY = new Float64Array(bins);
  const count = new Int32Array(bins);
  const scale = bins / 2;
  for (let i = 0; i < n; i++) {
    let bin = ((u[i] + 1) * scale) | 0;
    if (bin >= bins) bin = bins - 1;
    sumX[bin] += u[i];
    sumY[bin] += y[i];
    count[bin]++;
  }
  let filled = 0;
  for (let bin = 0; bin < bins; bin++) {
    if (count[bin] === 0) continue;
    sumX[filled] = sumX[bin] / count[bin];
    sumY[filled++] = sumY[bin] / count[bin];
  }
  return { ...swing, u: sumX.subarray(0, filled), y: sumY.subarray(0, filled), step: null };
}

const highestFirst = (a: { power: number }, b: { power: number }): number => b.power - a.power;
const leastLeftFirst = (a: { leftOver: number }, b: { leftOver: number }): number => a.leftOver - b.leftOver;

/** Cycles per region at the highest peaks of the zero-padded spectrum of the points, laid on a regular grid. */
function spectrumPeaks(swing: Swing, most: number, mostPoints: number): number[] {
  const points = Math.min(swing.u.length, mostPoints);
  const size = pow(2, Math.max(4, Math.ceil(log2(points))));
  const padded = size * 2;
  const { u, y } = binned(swing, size);
  let mean = 0;
  for (let i = 0; i < y.length; i++) mean += y[i] / y.length;
  const input = new Float64Array(padded);
  for (let i = 0; i < u.length; i++) {
    const place = Math.min(size - 1, Math.max(0, Math.round(((u[i] + 1) / 2) * (size - 1))));
    input[place] = y[i] - mean;
  }
  const output = fourierOf(input);
  const power = (bin: number) => square(output[2 * bin]) + square(output[2 * bin + 1]);
  const peaks: { bin: number; power: number }[] = [];
  for (let bin = 1; bin < padded / 2 - 1; bin++) {
    const here = power(bin);
    if (here >= power(bin - 1) && here >= power(bin + 1)) peaks.push({ bin, power: here });
  }
  peaks.sort(highestFirst);
  return peaks.slice(0, most).map(({ bin, power: here }) => {
    // The vertex of a parabola through the peak and its neighbours lies nearer to the true frequency than the bin.
    const [left, right] = [power(bin - 1), power(bin + 1)];
    const bend = left - 2 * here + right;
    const shift = bend === 0 ? 0 : (left - right) / (2 * bend);
    return ((bin + shift) / padded) * (size - 1);
  });
}

/**
 * The sum of squares about the mean, and the part of it that offset, sine and cosine of one angular frequency explain. Good
 * for choosing where to start; the solver does the fitting.
 */
export function explainedAt(
  u: Float64Array,
  y: Float64Array,
  angular: number,
): { total: number; explained: number } {
  const n = u.length;
  // Sums about the first reading: near enough to the mean that their differences keep their digits.
  const base = y[0];
  let sumS = 0;
  let sumC = 0;
  let sumY = 0;
  let sumSS = 0;
  let sumSC = 0;
  let sumSY = 0;
  let sumCY = 0;
  let sumYY = 0;
  const both = new Float64Array(2);
  for (let i = 0; i < n; i++) {
    sinCos(angular * u[i], both);
    const [s, c] = both;
    const v = y[i] - base;
    sumS += s;
    sumC += c;
    sumY += v;
    sumSS += s * s;
    sumSC += s * c;
    sumSY += s * v;
    sumCY += c * v;
    sumYY += v * v;
  }
  const ss = sumSS - (sumS * sumS) / n;
  const cc = n - sumSS - (sumC * sumC) / n;
  const sc = sumSC - (sumS * sumC) / n;
  const sy = sumSY - (sumS * sumY) / n;
  const cy = sumCY - (sumC * sumY) / n;
  const total = sumYY - (sumY * sumY) / n;
  const determinant = ss * cc - sc * sc;
  if (!(determinant > 1e-12 * ss * cc)) return { total, explained: 0 };
  return { total, explained: (cc * sy * sy - 2 * sc * sy * cy + ss * cy * cy) / determinant };
}
