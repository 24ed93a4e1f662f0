import { type Stretch, addStretches, scaledStretch } from '../series/noisePath';
import { indexAtOrAfter, timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { crossingsOf } from './crossings';

/** A number with what each reading does to it, to first order. */
export interface Told {
  value: number;
  weights: Stretch;
}

/** The swings of a series about a level. */
export interface Cycles {
  /** Moments at which the series rises through the level. */
  starts: Told[];
  /** Half the way from the least to the greatest reading of each whole cycle. */
  amplitudes: Told[];
}

/**
 * Cuts a stretch of a series into whole cycles, from each rise through a level to the next. A crossing lies on the straight line
 * between two readings; noise about the level is none (see `crossingsOf`).
 */
export function cyclesOf(series: Series, level: number, first: number, past: number): Cycles {
  const { sampling, values } = series;
  const starts = Array.from(crossingsOf(series, level, 'rise', first, past)).map((at): Told => {
    const right = Math.max(indexAtOrAfter(sampling, at), 1);
    const [t0, t1] = [timeAt(sampling, right - 1), timeAt(sampling, right)];
    const [y0, y1] = [values[right - 1], values[right]];
    const rise = (t1 - t0) / (y1 - y0) ** 2;
    return {
      value: at,
      weights: { first: right - 1, weights: Float64Array.of(rise * (level - y1), rise * (y0 - level)) },
    };
  });
  const amplitudes = starts.slice(1).map(({ value: end }, i) => {
    const [from, to] = [indexAtOrAfter(sampling, starts[i].value), indexAtOrAfter(sampling, end)];
    let [top, bottom] = [from, from];
    for (let k = from; k < to; k++) {
      if (values[k] > values[top] || values[top] !== values[top]) top = k;
      if (values[k] < values[bottom] || values[bottom] !== values[bottom]) bottom = k;
    }
    const half = (place: number, sign: number): Stretch => ({
      first: place,
      weights: Float64Array.of(sign / 2),
    });
    return {
      value: (values[top] - values[bottom]) / 2,
      weights: addStretches(half(top, 1), half(bottom, -1)),
    };
  });
  return { starts, amplitudes };
}

/** The difference of two, divided. */
export const differenceOf = (a: Told, b: Told, divided: number): Told => ({
  value: (a.value - b.value) / divided,
  weights: scaledStretch(addStretches(a.weights, b.weights, -1), 1 / divided),
});
