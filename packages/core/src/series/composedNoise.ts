import { type NoisePath, type WeightSpan, addSpans, scaledSpan } from './noisePath';
import { indexAtOrAfter, timeAt } from './sampling';
import { type Series } from './series';

/** One way in which a value that is worked out from others hangs on readings. */
export interface ComposedPart {
  path: NoisePath;
  /** Partial derivatives of the values by this part, one for each value. */
  partials(): Float64Array;
}

/**
 * The noise of values that are worked out from several series of one root, to first order: F = Σ diag(∂) Fₖ.
 * @param parts ways to the same root, one or more
 */
export function composedNoise(parts: readonly ComposedPart[]): NoisePath {
  const [{ path: first }] = parts;
  return {
    root: first.root,
    independent: false,
    spread: (span) =>
      parts.reduce<WeightSpan>(
        (sum, { path, partials }) => addSpans(sum, path.spread(timesPartials(span, partials()))),
        { first: span.first, weights: new Float64Array(0) },
      ),
    row(i) {
      let sum: WeightSpan | null = null;
      for (const { path, partials } of parts) {
        const row = path.row(i);
        if (row === null) return null;
        const own = scaledSpan(row, partials()[i]);
        sum = sum === null ? own : addSpans(sum, own);
      }
      return sum;
    },
    isOrdinary: (low, high) =>
      parts.every(({ path, partials }) => isConstant(partials(), low, high) && path.isOrdinary(low, high)),
  };
}

function timesPartials({ first, weights }: WeightSpan, partials: Float64Array): WeightSpan {
  const out = new Float64Array(weights.length);
  // A weight of nothing counts nothing, also where a value is missing.
  for (let i = 0; i < out.length; i++) if (weights[i] !== 0) out[i] = weights[i] * partials[first + i];
  return { first, weights: out };
}

function isConstant(values: Float64Array, low: number, high: number): boolean {
  for (let i = low + 1; i < high; i++) if (values[i] !== values[low]) return false;
  return values[low] === values[low];
}

/** The noise of a series read at the times of another one: each value lies on the straight line between two readings. */
export function interpolatedNoise(path: NoisePath, series: Series, other: Series): NoisePath {
  const here = (i: number): WeightSpan => {
    const at = timeAt(other.sampling, i);
    const right = Math.min(indexAtOrAfter(series.sampling, at), series.values.length - 1);
    if (right === 0 || timeAt(series.sampling, right) === at)
      return { first: right, weights: Float64Array.of(1) };
    const [from, to] = [timeAt(series.sampling, right - 1), timeAt(series.sampling, right)];
    const share = (at - from) / (to - from);
    return { first: right - 1, weights: Float64Array.of(1 - share, share) };
  };
  return {
    root: path.root,
    independent: false,
    spread({ first, weights }) {
      const rows = Array.from(weights, (weight, i) => (weight === 0 ? null : here(first + i)));
      const known = rows.filter((row) => row !== null);
      if (known.length === 0) return path.spread({ first: 0, weights: new Float64Array(0) });
      const low = known[0].first;
      const out = new Float64Array(known[known.length - 1].first + 2 - low);
      rows.forEach((row, i) => {
        row?.weights.forEach((share, j) => (out[row.first - low + j] += share * weights[i]));
      });
      return path.spread({ first: low, weights: out });
    },
    row(i) {
      const own = here(i);
      let sum: WeightSpan = { first: own.first, weights: new Float64Array(0) };
      for (let j = 0; j < own.weights.length; j++) {
        const row = path.row(own.first + j);
        if (row === null) return null;
        sum = addSpans(sum, row, own.weights[j]);
      }
      return sum;
    },
    isOrdinary: () => false,
  };
}
