import FFT from 'fft.js';
import { type ReadingsRoot } from '../series/noisePath';
import { indexAfter, indexAtOrAfter } from '../series/sampling';
import { type FilterStep, type Series } from '../series/series';
import { localPolynomialWeights } from './localPolynomial';

/** What the windows between readings and a derived series take off the motion in a stretch. */
export interface Flattening {
  /** Share of the root mean square that is lost, 0 to 1. */
  lost: number;
  windowPoints: number;
  /** The widest window that would take less than `allowed`; null where even three readings take more. */
  harmless: number | null;
}

const allowed = 0.01;
/** The least odd number of readings that a polynomial can be laid through with one to spare, where that is even. */
const narrowest = (degree: number) => (degree % 2 === 0 ? degree + 1 : degree + 2);

const mostReadings = 4096;
const fewestReadings = 8;
/** A line of the spectrum counts where it stands so far above the noise that noise would show it once in 10⁵. */
const aboveNoise = 12;

/**
 * Response of a local polynomial filter at an angular frequency per reading, relative to what it should be: 1 where it
 * passes a swing whole, below 1 where it flattens it.
 */
export function responseAt({ windowPoints, degree, order }: FilterStep, angular: number): number {
  const half = (windowPoints - 1) / 2;
  const offsets = Array.from({ length: windowPoints }, (_, j) => j - half);
  const weights = localPolynomialWeights(offsets, 0, degree, order);
  let sum = order === 1 ? 0 : weights[half];
  for (let j = 1; j <= half; j++)
    sum +=
      order === 1
        ? 2 * weights[half + j] * Math.sin(j * angular)
        : 2 * weights[half + j] * Math.cos(j * angular);
  if (order === 2) return -sum / angular ** 2;
  return order === 1 ? sum / angular : sum;
}

/**
 * How much of the motion between two abscissas the windows behind a series have taken off, from the spectrum of the readings
 * it comes from, noise left out. Null where it cannot be told: irregular times, missing readings, few of them.
 */
export function flatteningIn(series: Series, start: number, end: number): Flattening | null {
  const { made, noise, sampling, values } = series;
  // A median has no response of its own: what it takes off hangs on all that is in its window.
  const linear = made.filter(({ isMedian }) => isMedian !== true);
  if (linear.length === 0 || noise === null || sampling.kind !== 'regular') return null;
  const readings = noise.root.readings();
  if (readings.sampling.kind !== 'regular') return null;
  const first = Math.max(indexAtOrAfter(readings.sampling, start), 0);
  const count = Math.min(indexAfter(readings.sampling, end) - first, mostReadings);
  if (count < fewestReadings) return null;
  const lines = spectrumOf(noise.root, readings.values.subarray(first, first + count), first);
  if (lines === null) return null;

  const { interval } = sampling;
  const derivatives = linear.reduce((sum, { order }) => sum + order, 0);
  const lostWith = (limit: number): number => {
    const steps = linear.map((step) => ({
      ...step,
      windowPoints: Math.max(Math.min(step.windowPoints, limit), narrowest(step.degree)),
    }));
    let sum = 0;
    for (const { angular, power } of lines) {
      const passed = steps.reduce((product, step) => product * responseAt(step, angular), 1);
      sum += power * (angular / interval) ** (2 * derivatives) * (1 - passed) ** 2;
    }
    return Math.sqrt(sum);
  };
  let kept = 0;
  let keptCount = 0;
  const from = indexAtOrAfter(sampling, start);
  for (let i = from; i < Math.min(indexAfter(sampling, end), from + mostReadings); i++) {
    if (values[i] !== values[i]) continue;
    kept += values[i] * values[i];
    keptCount++;
  }
  const widest = Math.max(...linear.map(({ windowPoints }) => windowPoints));
  const lost = lostWith(widest);
  const whole = lost + Math.sqrt(kept / Math.max(keptCount, 1));
  if (!(whole > 0)) return null;
  let harmless: number | null = null;
  if (lost / whole > allowed)
    for (let window = widest - 2; window >= 3; window -= 2)
      if (lostWith(window) / whole < allowed) {
        harmless = window;
        break;
      }
  return { lost: lost / whole, windowPoints: widest, harmless: lost / whole > allowed ? harmless : widest };
}

/** Mean squares of the readings' swings by angular frequency per reading, a parabola taken off, above the noise. */
function spectrumOf(
  root: ReadingsRoot,
  values: Float64Array,
  first: number,
): { angular: number; power: number }[] | null {
  const n = values.length;
  for (let i = 0; i < n; i++) if (values[i] !== values[i]) return null;
  const flat = withoutParabola(values);
  const size = 2 ** Math.ceil(Math.log2(2 * n));
  const input = new Array<number>(size).fill(0);
  let windowSquared = 0;
  for (let i = 0; i < n; i++) {
    const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / n);
    input[i] = flat[i] * window;
    windowSquared += window * window;
  }
  const fft = new FFT(size);
  const output = fft.createComplexArray();
  fft.realTransform(output, input);
  const sigma = root.level.between(first, first + n).standardDeviation;
  const floor = (Number.isFinite(sigma) ? sigma * sigma : 0) * windowSquared;
  const lines: { angular: number; power: number }[] = [];
  for (let bin = 1; bin < size / 2; bin++) {
    const power = output[2 * bin] ** 2 + output[2 * bin + 1] ** 2;
    if (power > aboveNoise * floor)
      lines.push({
        angular: (2 * Math.PI * bin) / size,
        power: (2 * (power - floor)) / (size * windowSquared),
      });
  }
  return lines;
}

/** Readings less their least-squares parabola, which a local parabola passes whole. */
function withoutParabola(values: Float64Array): Float64Array {
  const n = values.length;
  const u = (i: number) => (2 * i) / (n - 1) - 1;
  // Polynomials orthogonal over regular points: 1, u, u² − mean of u².
  let second = 0;
  for (let i = 0; i < n; i++) second += u(i) ** 2 / n;
  const basis = [() => 1, u, (i: number) => u(i) ** 2 - second];
  const out = values.slice();
  for (const polynomial of basis) {
    let dot = 0;
    let norm = 0;
    for (let i = 0; i < n; i++) {
      dot += polynomial(i) * out[i];
      norm += polynomial(i) ** 2;
    }
    for (let i = 0; i < n; i++) out[i] -= (dot / norm) * polynomial(i);
  }
  return out;
}
