import { Refusal } from '../refusal';
import { type Series, indexAfter, indexAtOrAfter, valueAt } from '../series/series';
import { multiplyUnits } from '../units/unit';
import { type NoisePath } from '../series/noise';

const integralQuantity: Record<string, string> = {
  velocity: 'displacement',
  acceleration: 'change of velocity',
  force: 'impulse',
};

/** A lone lost echo or two are bridged by a straight line; what went on in a longer gap nobody knows. */
const longestBridge = 3;

/**
 * The running integral by the trapezoidal rule, zero at the first reading. A missing reading is bridged by a straight line
 * between its neighbours and stays missing itself; a stretch of missing readings longer than `bridge` ends the sum,
 * because nobody knows what went on in there: all later values are NaN.
 */
export function runningIntegral(series: Series, symbol: string, bridge = longestBridge): Series {
  const { times, values } = series;
  const n = values.length;
  const out = new Float64Array(n).fill(NaN);
  // Trapezoid widths on each side of the readings that are there, kept for the noise path.
  const before = new Float64Array(n);
  let last = -1;
  let sum = 0;
  let end = n;
  for (let i = 0; i < n; i++) {
    if (Number.isNaN(values[i])) continue;
    if (last >= 0) {
      if (i - last - 1 > bridge) {
        end = i;
        break;
      }
      before[i] = (times[i] - times[last]) / 2;
      sum += before[i] * (values[i] + values[last]);
    }
    out[i] = sum;
    last = i;
  }
  const noise: NoisePath = {
    readings: series.noise.readings,
    independent: false,
    row: () => null,
    isOrdinary: () => false,
    rowNormsSquared: () => null,
    transpose(weights) {
      const back = new Float64Array(n);
      // Value i holds every trapezoid up to i, so a trapezoid ending at i is weighed by all later weights.
      let later = 0;
      let right = -1;
      for (let i = end - 1; i >= 0; i--) {
        if (Number.isNaN(values[i])) continue;
        if (right >= 0) {
          back[i] += before[right] * later;
          back[right] += before[right] * later;
        }
        later += weights[i];
        right = i;
      }
      return series.noise.transpose(back);
    },
  };
  return {
    symbol,
    quantity: integralQuantity[series.quantity] ?? `integral of ${series.quantity}`,
    unit: multiplyUnits(series.unit, series.timeUnit),
    times,
    timeUnit: series.timeUnit,
    interval: series.interval,
    values: out,
    noise,
  };
}

export interface Area {
  value: number;
  /** Weights on the values of the series: area = Σ weights · values. */
  weights: Float64Array;
  /** Missing readings that were bridged by a straight line. */
  bridged: number;
}

/**
 * The area under a series between two abscissas, by the trapezoidal rule, with the ends interpolated where there are
 * readings on both sides of them. Up to `bridge` missing readings in a row are bridged by a straight line.
 * @throws Refusal with fewer than two readings, or across a longer gap
 */
export function areaBetween(series: Series, start: number, end: number, bridge = longestBridge): Area {
  const { times, values } = series;
  const first = indexAtOrAfter(times, start);
  const past = indexAfter(times, end);
  const weights = new Float64Array(values.length);
  let value = 0;
  let bridged = 0;
  let inner = -1;
  let last = -1;
  for (let i = first; i < past; i++) {
    if (Number.isNaN(values[i])) continue;
    const skipped = i - (last < 0 ? first : last + 1);
    if (skipped > bridge) throw gapRefusal(times[i - 1]);
    if (last < 0) inner = i;
    else {
      const half = (times[i] - times[last]) / 2;
      weights[last] += half;
      weights[i] += half;
      value += half * (values[last] + values[i]);
      bridged += skipped;
    }
    last = i;
  }
  if (last === inner)
    throw new Refusal('An area needs at least two readings in its region. Make the region longer.');
  if (past - 1 - last > bridge) throw gapRefusal(times[past - 1]);
  const strip = (at: number, inside: number, outside: number) => {
    if (outside < 0 || outside >= values.length) return;
    const atEnd = valueAt(series, at);
    if (Number.isNaN(atEnd)) return;
    const width = Math.abs(times[inside] - at);
    const part = width / Math.abs(times[outside] - times[inside]);
    value += (width / 2) * (atEnd + values[inside]);
    weights[inside] += (width / 2) * (2 - part);
    weights[outside] += (width / 2) * part;
  };
  if (inner === first) strip(start, first, first - 1);
  if (last === past - 1) strip(end, past - 1, past);
  return { value, weights, bridged };
}

const gapRefusal = (at: number) =>
  new Refusal(
    `Readings are missing about ${Number(at.toPrecision(6))}, so the area would be a guess. Choose a region without the gap.`,
  );
