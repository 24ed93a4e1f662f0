import { Refusal } from '../refusal';
import { type Series, indexAfter, indexAtOrAfter, valueAt } from '../series/series';
import { multiplyUnits } from '../units/unit';
import { type NoisePath } from '../series/noise';

const integralQuantity: Record<string, string> = {
  velocity: 'displacement',
  acceleration: 'change of velocity',
  force: 'impulse',
};

/**
 * The running integral by the trapezoidal rule, zero at the first reading. A missing reading is bridged by a straight line
 * between its neighbours and stays missing itself; a stretch of missing readings longer than `longestBridge` ends the sum,
 * because nobody knows what went on in there: all later values are NaN.
 */
export function runningIntegral(series: Series, symbol: string, longestBridge = 3): Series {
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
      if (i - last - 1 > longestBridge) {
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
}

/**
 * The area under a series between two abscissas, by the trapezoidal rule, with the ends interpolated where there are
 * readings on both sides of them.
 * @throws Refusal with fewer than two readings, or across a gap
 */
export function areaBetween(series: Series, start: number, end: number): Area {
  const { times, values } = series;
  const first = indexAtOrAfter(times, start);
  const past = indexAfter(times, end);
  if (past - first < 2)
    throw new Refusal('An area needs at least two readings in its region. Make the region longer.');
  for (let i = first; i < past; i++)
    if (Number.isNaN(values[i]))
      throw new Refusal(
        `A reading is missing at ${Number(times[i].toPrecision(6))}, so the area would be a guess. Choose a region without the gap.`,
      );
  const weights = new Float64Array(values.length);
  let value = 0;
  const add = (left: number, right: number, width: number) => {
    weights[left] += width / 2;
    weights[right] += width / 2;
    value += (width / 2) * (values[left] + values[right]);
  };
  for (let i = first; i + 1 < past; i++) add(i, i + 1, times[i + 1] - times[i]);
  const strip = (at: number, inner: number, outer: number) => {
    if (outer < 0 || outer >= values.length) return;
    const atEnd = valueAt(series, at);
    if (Number.isNaN(atEnd)) return;
    const width = Math.abs(times[inner] - at);
    const part = width / Math.abs(times[outer] - times[inner]);
    value += (width / 2) * (atEnd + values[inner]);
    weights[inner] += (width / 2) * (2 - part);
    weights[outer] += (width / 2) * part;
  };
  strip(start, first, first - 1);
  strip(end, past - 1, past);
  return { value, weights };
}
