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
  for (const cycles of spectrumPeaks(u, y, 4))
    if (cycles > 5) consider(cycles < 200 ? fast : { x: u, y }, cycles);
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
  const filled = [...count.keys()].filter((bin) => count[bin] > 0);
  return {
    x: Float64Array.from(filled, (bin) => sumX[bin] / count[bin]),
    y: Float64Array.from(filled, (bin) => sumY[bin] / count[bin]),
  };
}

/** Cycles per stretch at the highest peaks of the zero-padded spectrum of the points, laid on a regular grid. */
function spectrumPeaks(u: Float64Array, y: Float64Array, most: number): number[] {
  const points = Math.min(u.length, 2 ** 16);
  const size = 2 ** Math.max(4, Math.ceil(Math.log2(points)));
  const padded = size * 2;
  const grid = binnedOntoGrid(u, y, size);
  let mean = 0;
  for (const value of grid.y) mean += value / grid.y.length;
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
  let sumS = 0;
  let sumC = 0;
  let sumY = 0;
  for (let i = 0; i < n; i++) {
    sumS += sin(angular * u[i]);
    sumC += cos(angular * u[i]);
    sumY += y[i];
  }
  const [meanS, meanC, meanY] = [sumS / n, sumC / n, sumY / n];
  let ss = 0;
  let sc = 0;
  let cc = 0;
  let sy = 0;
  let cy = 0;
  let yy = 0;
  for (let i = 0; i < n; i++) {
    const s = sin(angular * u[i]) - meanS;
    const c = cos(angular * u[i]) - meanC;
    const v = y[i] - meanY;
    ss += s * s;
    sc += s * c;
    cc += c * c;
    sy += s * v;
    cy += c * v;
    yy += v * v;
  }
  const determinant = ss * cc - sc * sc;
  if (!(determinant > 1e-12 * ss * cc)) return { total: yy, explained: 0 };
  return { total: yy, explained: (cc * sy * sy - 2 * sc * sy * cy + ss * cy * cy) / determinant };
}
