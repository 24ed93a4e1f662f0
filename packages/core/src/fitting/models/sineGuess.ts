import FFT from 'fft.js';
import { type FitPoints } from '../relation';

const { sin, cos } = Math;

/** A candidate angular frequency on u ∈ [−1, 1], with what is left over when offset, sine and cosine are fitted to it. */
export interface SineCandidate {
  angular: number;
  leftOver: number;
}

/**
 * Candidate frequencies for a sine through points whose abscissa has been mapped onto u ∈ [−1, 1], best first. The least
 * squares sum over the frequency has about one minimum per cycle that fits into the stretch, so it is walked on a grid of an
 * eighth of a cycle: the slow end directly on the points, the fast end where the spectrum of the points has its peaks.
 * @param fewestCycles lowest frequency considered, in cycles per stretch
 */
export function sineCandidates({ x: u, y }: FitPoints, fewestCycles: number): SineCandidate[] {
  const { total } = explainedAt(u, y, Math.PI);
  const candidates: SineCandidate[] = [];
  const consider = (points: FitPoints, cycles: number) => {
    const angular = Math.PI * cycles;
    // Binning takes away from fast swings, so what counts is how much of the whole scatter a candidate explains.
    const { explained } = explainedAt(points.x, points.y, angular);
    candidates.push({ angular, leftOver: total - (explained * y.length) / points.y.length });
  };
  const slow = binnedOntoGrid(u, y, 256);
  const mostSlow = Math.min(6, y.length / 2);
  for (let cycles = fewestCycles; cycles <= mostSlow; cycles += 0.125) consider(slow, cycles);
  const fast = binnedOntoGrid(u, y, 2048);
  const considerPeaks = (mostPoints: number) => {
    for (const cycles of spectrumPeaks(u, y, 4, mostPoints))
      if (cycles > 5) consider(cycles < 200 ? fast : { x: u, y }, cycles);
  };
  considerPeaks(4096);
  // Bins hide swings faster than themselves: where too little is explained, the full spectrum is worth its time.
  if (y.length > 4096 && candidates.every(({ leftOver }) => leftOver > 0.5 * total)) considerPeaks(2 ** 16);
  candidates.sort((a, b) => a.leftOver - b.leftOver);
  return candidates.slice(0, 4);
}

/** Means of the points in equal stretches of u; the points themselves where they are few. */
function binnedOntoGrid(u: Float64Array, y: Float64Array, bins: number): FitPoints {
  if (u.length <= bins) return { x: u, y };
  const sumX = new Float64Array(bins);
  const sumY = new Float64Array(bins);
  const count = new Int32Array(bins);
  for (let i = 0; i < u.length; i++) {
    const bin = Math.min(bins - 1, Math.floor(((u[i] + 1) / 2) * bins));
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
  return { x: sumX.subarray(0, filled), y: sumY.subarray(0, filled) };
}

/** Cycles per stretch at the highest peaks of the zero-padded spectrum of the points, laid on a regular grid. */
function spectrumPeaks(u: Float64Array, y: Float64Array, most: number, mostPoints: number): number[] {
  const points = Math.min(u.length, mostPoints);
  const size = 2 ** Math.max(4, Math.ceil(Math.log2(points)));
  const padded = size * 2;
  const grid = binnedOntoGrid(u, y, size);
  let mean = 0;
  for (let i = 0; i < grid.y.length; i++) mean += grid.y[i] / grid.y.length;
  const input = new Array<number>(padded).fill(0);
  for (let i = 0; i < grid.x.length; i++) {
    const place = Math.min(size - 1, Math.max(0, Math.round(((grid.x[i] + 1) / 2) * (size - 1))));
    input[place] = grid.y[i] - mean;
  }
  const fft = new FFT(padded);
  const output = fft.createComplexArray();
  fft.realTransform(output, input);
  const power = (bin: number) => output[2 * bin] ** 2 + output[2 * bin + 1] ** 2;
  const peaks: { bin: number; power: number }[] = [];
  for (let bin = 1; bin < padded / 2 - 1; bin++) {
    const here = power(bin);
    if (here >= power(bin - 1) && here >= power(bin + 1)) peaks.push({ bin, power: here });
  }
  peaks.sort((a, b) => b.power - a.power);
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
  for (let i = 0; i < n; i++) {
    const s = sin(angular * u[i]);
    const c = cos(angular * u[i]);
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
