import { cos, log2, pow, sin, square } from '../elementary';
import { fourierOf } from '../spectrum/fourier';
import { once } from '../once';
import { type ReadingsRoot, normSquared } from '../series/noisePath';
import { indexAfter, indexAtOrAfter } from '../series/sampling';
import { type FilterStep, type Series } from '../series/series';
import { localPolynomialWeights } from './localPolynomial';

/** What the windows between readings and a derived series take off the motion in an interval. */
export interface Flattening {
  /** Share of the root mean square that is lost, 0 to 1. */
  lost: number;
  windowPoints: number;
  /** The widest window that would take less than `allowed`; null where even three readings take more. */
  harmless(): number | null;
  /** What would be lost through polynomials whose degrees are raised by so many steps of two, in the same windows. */
  lostRaised(steps: number): number;
}

const allowed = 0.01;
/** The least odd number of readings that a polynomial can be laid through with one to spare, where that is even. */
const narrowest = (degree: number) => (degree % 2 === 0 ? degree + 1 : degree + 2);

/** A window through polynomials raised by steps of two, wide enough for them, also where two of its readings are missing. */
export function raisedWindow<W extends { windowPoints: number; degree: number }>(
  window: W,
  raised: number,
): W {
  if (raised === 0) return window;
  const degree = window.degree + 2 * raised;
  return { ...window, degree, windowPoints: Math.max(window.windowPoints, degree + 3 + (degree % 2)) };
}

const mostReadings = 4096;
const mostParts = 4;
const fewestReadings = 8;
/** A line of the spectrum counts where it stands so far above the noise that noise would show it once in 10⁷. */
const aboveNoise = 16;

/**
 * Response of a local polynomial filter at an angular frequency per reading, relative to what it should be: 1 where it
 * passes a swing whole, below 1 where it flattens it.
 */
export const responseAt = (step: FilterStep, angular: number): number =>
  responseBy(weightsOf(step), step.order, angular);

function weightsOf({ windowPoints, degree, order }: FilterStep): Float64Array {
  const half = (windowPoints - 1) / 2;
  const offsets = new Float64Array(windowPoints);
  for (let j = 0; j < windowPoints; j++) offsets[j] = j - half;
  return localPolynomialWeights(offsets, 0, degree, order);
}

function responseBy(weights: Float64Array, order: number, angular: number): number {
  const half = (weights.length - 1) / 2;
  let sum = order === 1 ? 0 : weights[half];
  for (let j = 1; j <= half; j++)
    sum += order === 1 ? 2 * weights[half + j] * sin(j * angular) : 2 * weights[half + j] * cos(j * angular);
  if (order === 2) return -sum / square(angular);
  return order === 1 ? sum / angular : sum;
}

/** The root of the sum of squares of what filters take off the lines of a spectrum. */
function lostOf(lines: readonly Line[], interval: number, steps: readonly FilterStep[]): number {
  const weights: Float64Array[] = [];
  let derivatives = 0;
  for (const step of steps) {
    weights.push(weightsOf(step));
    derivatives += step.order;
  }
  let sum = 0;
  for (const { angular, power } of lines) {
    let passed = 1;
    for (let k = 0; k < steps.length; k++) passed *= responseBy(weights[k], steps[k].order, angular);
    sum += power * pow(angular / interval, 2 * derivatives) * square(1 - passed);
  }
  return Math.sqrt(sum);
}

/**
 * How much of the motion between two abscissas the windows behind a series have taken off, from the spectrum of the readings
 * it comes from, noise left out. Null where it cannot be determined: irregular times, many missing readings, few readings.
 * @param advises whether the widest harmless window is looked for too, which takes several times as long
 */
export function flatteningIn(series: Series, start: number, end: number, advises = true): Flattening | null {
  const { made, noise, sampling, values, windowed } = series;
  // A median has no response of its own: what it takes off hangs on all that is in its window.
  const linear = made.filter(({ isMedian }) => isMedian !== true);
  if (linear.length === 0 || noise === null || sampling.kind !== 'regular' || windowed !== undefined)
    return null;
  const readings = noise.root.readings();
  if (readings.sampling.kind !== 'regular') return null;
  const first = Math.max(indexAtOrAfter(readings.sampling, start), 0);
  const past = Math.min(indexAfter(readings.sampling, end), readings.values.length);
  if (past - first < fewestReadings) return null;
  const lines = linesOf(noise.root, readings.values, first, past);
  if (lines === null) return null;

  const { interval } = sampling;
  const lostThrough = (steps: readonly FilterStep[]) => lostOf(lines, interval, steps);
  const lostWith = (limit: number): number =>
    lostThrough(
      linear.map((step) => ({
        ...step,
        windowPoints: Math.max(Math.min(step.windowPoints, limit), narrowest(step.degree)),
      })),
    );
  let kept = 0;
  let keptCount = 0;
  const to = indexAfter(sampling, end);
  for (let i = indexAtOrAfter(sampling, start); i < to; i++) {
    if (values[i] !== values[i]) continue;
    kept += values[i] * values[i];
    keptCount++;
  }
  const widest = Math.max(...linear.map(({ windowPoints }) => windowPoints));
  const lost = lostWith(widest);
  const whole = lost + Math.sqrt(kept / Math.max(keptCount, 1));
  if (!(whole > 0)) return null;
  const isHarmless = (window: number) => lostWith(window) / whole < allowed;
  const harmless = once(() =>
    lost / whole <= allowed ? widest : advises ? widestWhere(isHarmless, widest - 2) : null,
  );
  return {
    lost: lost / whole,
    windowPoints: widest,
    harmless,
    lostRaised: (times) => lostThrough(linear.map((step) => raisedWindow(step, times))) / whole,
  };
}

/** The widest odd window up to `most` that passes, where narrower ones pass too; null where even three readings do not. */
function widestWhere(passes: (window: number) => boolean, most: number): number | null {
  let low = 0;
  let high = (most - 1) / 2;
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (passes(2 * middle + 1)) low = middle;
    else high = middle - 1;
  }
  return low === 0 ? null : 2 * low + 1;
}

interface Line {
  angular: number;
  power: number;
}

/** The same interval is asked for by every result in it, and by a window while it is moved. */
const known = new WeakMap<ReadingsRoot, Map<string, Line[] | null>>();
const mostKnown = 20;

/** The lines of an interval of readings, or the mean of those of four parts of one that is long. */
function linesOf(root: ReadingsRoot, values: Float64Array, first: number, past: number): Line[] | null {
  const key = `${first}/${past}`;
  let ofRoot = known.get(root);
  if (ofRoot === undefined) known.set(root, (ofRoot = new Map()));
  let found = ofRoot.get(key);
  if (found !== undefined) return found;
  const count = Math.min(past - first, mostReadings);
  const parts = past - first <= mostReadings ? 1 : mostParts;
  const byAngle = new Map<number, number>();
  for (let part = 0; part < parts; part++) {
    const from = first + Math.round((part * (past - first - count)) / Math.max(parts - 1, 1));
    const lines = spectrumOf(root, values.subarray(from, from + count), from);
    // What is missing in one part is missing in what is said of all of them.
    if (lines === null) {
      byAngle.clear();
      found = null;
      break;
    }
    for (const { angular, power } of lines) byAngle.set(angular, (byAngle.get(angular) ?? 0) + power / parts);
  }
  if (found === undefined) found = [...byAngle].map(([angular, power]) => ({ angular, power }));
  if (ofRoot.size >= mostKnown) ofRoot.clear();
  ofRoot.set(key, found);
  return found;
}

/** What is laid over so many readings. */
interface Shapes {
  count: number;
  /** The window of Hann. */
  window: Float64Array;
  windowSquared: number;
  /** Polynomials orthogonal over regular points, 1, u, u² − mean of u², each with the sum of its squares. */
  polynomials: readonly { at: Float64Array; norm: number }[];
}

/** Those of the last number of readings that was asked for: the parts of a long interval are equally long. */
let lastShapes: Shapes | null = null;

function shapesOver(count: number): Shapes {
  if (lastShapes?.count === count) return lastShapes;
  const [window, one, u, bend] = Array.from({ length: 4 }, () => new Float64Array(count));
  let [windowSquared, second] = [0, 0];
  for (let i = 0; i < count; i++) {
    window[i] = 0.5 - 0.5 * cos((2 * Math.PI * (i + 0.5)) / count);
    windowSquared += window[i] * window[i];
    one[i] = 1;
    u[i] = (2 * i) / (count - 1) - 1;
    second += square(u[i]) / count;
  }
  for (let i = 0; i < count; i++) bend[i] = square(u[i]) - second;
  const polynomials = [one, u, bend].map((at) => ({ at, norm: normSquared(at) }));
  return (lastShapes = { count, window, windowSquared, polynomials });
}

/** Mean squares of the readings' swings by angular frequency per reading, a parabola taken off, above the noise. */
function spectrumOf(root: ReadingsRoot, values: Float64Array, first: number): Line[] | null {
  const n = values.length;
  const bridged = bridgedOver(values);
  if (bridged === null) return null;
  const shapes = shapesOver(n);
  const { window, windowSquared } = shapes;
  const flat = withoutParabola(bridged, shapes);
  const size = pow(2, Math.ceil(log2(2 * n)));
  const input = new Float64Array(size);
  for (let i = 0; i < n; i++) input[i] = flat[i] * window[i];
  const output = fourierOf(input);
  // No window follows a break, and no spectrum tells of one.
  const sigma = root.level.restlessness(first, first + n);
  const floor = (Number.isFinite(sigma) ? sigma * sigma : 0) * windowSquared;
  const lines: Line[] = [];
  for (let bin = 1; bin < size / 2; bin++) {
    const power = square(output[2 * bin]) + square(output[2 * bin + 1]);
    if (power > aboveNoise * floor)
      lines.push({
        angular: (2 * Math.PI * bin) / size,
        power: (2 * (power - floor)) / (size * windowSquared),
      });
  }
  return lines;
}

/** So many of the readings may be missing. */
const mostMissing = 0.2;

/** Readings with the few that are missing on straight lines; null where more are. */
function bridgedOver(values: Float64Array): Float64Array | null {
  let missing = 0;
  for (let i = 0; i < values.length; i++) if (values[i] !== values[i]) missing++;
  if (missing === 0) return values;
  if (missing > mostMissing * values.length) return null;
  const out = values.slice();
  let last = -1;
  for (let i = 0; i < out.length; i++) {
    if (values[i] !== values[i]) continue;
    for (let j = last + 1; j < i; j++)
      out[j] = last < 0 ? values[i] : values[last] + ((j - last) / (i - last)) * (values[i] - values[last]);
    last = i;
  }
  out.fill(values[last], last + 1);
  return out;
}

/** Readings less their least-squares parabola, which a local parabola passes whole. */
function withoutParabola(values: Float64Array, { polynomials }: Shapes): Float64Array {
  const n = values.length;
  const out = values.slice();
  for (const { at, norm } of polynomials) {
    let dot = 0;
    for (let i = 0; i < n; i++) dot += at[i] * out[i];
    const factor = dot / norm;
    for (let i = 0; i < n; i++) out[i] -= factor * at[i];
  }
  return out;
}
