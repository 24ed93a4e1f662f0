import { Growing } from '../series/growing';
import { type NoisePath } from '../series/noisePath';
import { checkSampling, timeAt } from '../series/sampling';
import { type Series, windowedBehind } from '../series/series';
import { multiplyUnits } from '../units/unit';
import { isGap, longestSumBridge, sumGapRefusal } from './gaps';

const integralQuantity: Readonly<Record<string, string>> = {
  velocity: 'displacement',
  acceleration: 'change of velocity',
  force: 'impulse',
  'angular velocity': 'change of angle',
};

interface Kept {
  input: object;
  values: Growing;
  /** Widths of the trapezoids on the left of the readings that are there. */
  before: Growing;
  last: number;
  sum: number;
  next: number;
}

const keptOf = new WeakMap<object, Kept>();

/**
 * The running integral by the trapezoidal rule, zero at the first reading. A missing reading is bridged by a straight line
 * between its neighbours and stays missing itself.
 * @throws Refusal at a gap of more than ten readings, or a hole in irregular times: nobody knows what gathered in there
 * @param before the integral of an earlier, shorter state of the same series, which is gone on with
 */
export function runningIntegral(series: Series, symbol: string, before?: Series): Series {
  const { sampling, values } = series;
  checkSampling(sampling);
  const n = values.length;
  const earlier = before === undefined ? undefined : keptOf.get(before.lineage);
  const goesOn = before !== undefined && earlier !== undefined && earlier.input === series.lineage;
  const from = goesOn ? earlier.next : 0;
  const kept: Kept = goesOn
    ? earlier
    : {
        input: series.lineage,
        values: new Growing(n),
        before: new Growing(n),
        last: -1,
        sum: 0,
        next: 0,
      };
  const out = kept.values.extend(n);
  const widths = kept.before.extend(n);
  // Of a parent that still changes its tail only the settled part is kept; the tail is worked out for now.
  let { last, sum } = kept;
  for (let i = from; i < n; i++) {
    if (i === series.settled) Object.assign(kept, { last, sum, next: i });
    out[i] = NaN;
    widths[i] = 0;
    if (values[i] !== values[i]) continue;
    if (last >= 0) {
      if (isGap(sampling, last, i, longestSumBridge)) throw sumGapRefusal(series, last, i);
      widths[i] = (timeAt(sampling, i) - timeAt(sampling, last)) / 2;
      sum += widths[i] * (values[i] + values[last]);
    }
    out[i] = sum;
    last = i;
  }
  if (series.settled >= n) Object.assign(kept, { last, sum, next: n });
  const lineage = goesOn ? before.lineage : {};
  keptOf.set(lineage, kept);
  const through = (parent: NoisePath): NoisePath => ({
    root: parent.root,
    independent: false,
    row: () => null,
    isOrdinary: () => false,
    spread({ first, weights }) {
      const back = new Float64Array(Math.min(first + weights.length, n));
      // Value i holds every trapezoid up to i, so a trapezoid ending at i is weighed by all later weights.
      let later = 0;
      let right = -1;
      for (let i = back.length - 1; i >= 0; i--) {
        if (values[i] !== values[i]) continue;
        if (right >= 0) {
          back[i] += widths[right] * later;
          back[right] += widths[right] * later;
        }
        if (i >= first) later += weights[i - first];
        right = i;
      }
      return parent.spread({ first: 0, weights: back });
    },
  });
  return {
    symbol,
    quantity: integralQuantity[series.quantity] ?? `integral of ${series.quantity}`,
    unit: multiplyUnits(series.unit, series.timeUnit),
    timeUnit: series.timeUnit,
    sampling,
    values: out,
    noise: series.noise === null ? null : through(series.noise),
    ...(series.further === undefined ? {} : { further: series.further.map(through) }),
    made: series.made,
    windowed: windowedBehind([series]),
    lineage,
    settled: Math.min(series.settled, n),
  };
}
