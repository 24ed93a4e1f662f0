import { Refusal } from '../refusal';
import { type NoisePath, type NoiseRow as Row } from '../series/noise';
import { type Series } from '../series/series';
import { localPolynomialWeights } from './localPolynomial';

export interface FilterOptions {
  /** Odd number of readings, 3 or more. */
  windowPoints: number;
  /** Degree of the local polynomial; below the window. */
  degree: number;
  /** 0 smooths, 1 differentiates, 2 differentiates twice. */
  order: number;
}

export interface Filtered {
  values: Float64Array;
  noise: NoisePath;
}

/**
 * Smoothing and differentiation by a local polynomial, with the same polynomial at both ends rather than a shorter series.
 * Regular times use one fixed set of weights; irregular times and windows with missing readings use least squares on the
 * times that are there. A missing reading stays missing.
 * @throws Refusal where the series is shorter than the window
 */
export function localPolynomialFilter(series: Series, options: FilterOptions): Filtered {
  const { windowPoints: width, degree, order } = options;
  const { times, values, interval } = series;
  const n = values.length;
  if (!Number.isInteger(width) || width < 3 || width % 2 === 0)
    throw new Refusal(`The window must be an odd number of readings from 3 upwards, not ${width}.`);
  if (degree < order || degree >= width)
    throw new Refusal(`A polynomial of degree ${degree} does not go with a window of ${width} readings.`);
  if (n < width)
    throw new Refusal(`A window of ${width} readings needs at least ${width} readings; this run has ${n}.`);

  const half = (width - 1) / 2;
  const fixed =
    interval === null
      ? null
      : Array.from({ length: width }, (_, position) => {
          const offsets = Array.from({ length: width }, (_unused, j) => j * interval);
          return localPolynomialWeights(offsets, position * interval, degree, order);
        });

  const special = new Map<number, Row>();
  const startOf = (i: number) => Math.min(Math.max(i - half, 0), n - width);
  const out = new Float64Array(n);

  const solveRow = (i: number): Row => {
    const start = startOf(i);
    const present: number[] = [];
    for (let j = 0; j < width; j++) if (!Number.isNaN(values[start + j])) present.push(j);
    const weights = new Float64Array(width);
    if (present.length <= degree) return { start, weights: weights.fill(NaN) };
    const solved = localPolynomialWeights(
      present.map((j) => times[start + j]),
      times[i],
      degree,
      order,
    );
    present.forEach((j, place) => (weights[j] = solved[place]));
    return { start, weights };
  };

  const applyRow = ({ start, weights }: Row): number => {
    let sum = 0;
    for (let j = 0; j < width; j++) if (weights[j] !== 0) sum += weights[j] * values[start + j];
    return sum;
  };

  if (fixed === null) {
    for (let i = 0; i < n; i++) {
      const row = solveRow(i);
      special.set(i, row);
      out[i] = Number.isNaN(values[i]) ? NaN : applyRow(row);
    }
  } else {
    slide(values, fixed[half], out);
    for (let i = 0; i < n; i++) {
      const atEnd = i < half || i >= n - half;
      if (!atEnd && out[i] === out[i]) continue;
      const start = startOf(i);
      const row: Row = { start, weights: fixed[i - start] };
      out[i] = applyRow(row);
      if (Number.isNaN(out[i]) && !Number.isNaN(values[i])) {
        const solved = solveRow(i);
        special.set(i, solved);
        out[i] = applyRow(solved);
      } else special.set(i, row);
      if (Number.isNaN(values[i])) out[i] = NaN;
    }
  }

  const rowOf = (i: number): Row => {
    const row = special.get(i);
    if (row !== undefined) return row;
    if (fixed === null) throw new RangeError(`no weights for value ${i}`);
    return { start: i - half, weights: fixed[half] };
  };
  return { values: out, noise: filteredNoise(series.noise, n, rowOf, special) };
}

/** The hot loop, by itself so that it runs on plain local arrays: weights slid over the values away from both ends. */
function slide(values: Float64Array, weights: Float64Array, out: Float64Array): void {
  const width = weights.length;
  const half = (width - 1) / 2;
  const end = values.length - half;
  for (let i = half; i < end; i++) {
    let sum = 0;
    for (let j = 0, at = i - half; j < width; j++, at++) sum += weights[j] * values[at];
    out[i] = sum;
  }
}

function filteredNoise(
  parent: NoisePath,
  n: number,
  rowOf: (i: number) => Row,
  special: ReadonlyMap<number, Row>,
): NoisePath {
  const transposeHere = (weights: Float64Array): Float64Array => {
    const out = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const weight = weights[i];
      if (weight === 0) continue;
      const { start, weights: row } = rowOf(i);
      for (let j = 0; j < row.length; j++) out[start + j] += weight * row[j];
    }
    return out;
  };

  /** Row i of the whole path: this filter's row, spread over the rows of its parent. */
  const pathRow = (i: number): Row | null => {
    const { start, weights } = rowOf(i);
    const rows = Array.from(weights, (_, j) => parent.row(start + j));
    let first = Infinity;
    let past = 0;
    for (const row of rows) {
      if (row === null) return null;
      first = Math.min(first, row.start);
      past = Math.max(past, row.start + row.weights.length);
    }
    const spread = new Float64Array(past - first);
    rows.forEach((row, j) => {
      if (weights[j] !== 0)
        row?.weights.forEach((weight, k) => (spread[row.start - first + k] += weights[j] * weight));
    });
    return { start: first, weights: spread };
  };

  const isOrdinary = (i: number): boolean => {
    if (special.has(i)) return false;
    if (parent.independent) return true;
    const { start, weights } = rowOf(i);
    for (let j = 0; j < weights.length; j++) if (!parent.isOrdinary(start + j)) return false;
    return true;
  };

  let norms: Float64Array | null = null;
  return {
    readings: parent.readings,
    independent: false,
    transpose: (weights) => parent.transpose(transposeHere(weights)),
    row: pathRow,
    isOrdinary,
    rowNormsSquared() {
      if (norms !== null) return norms;
      const found = new Float64Array(n);
      let ordinaryNorm: number | null = null;
      for (let i = 0; i < n; i++) {
        const ordinary = isOrdinary(i);
        if (ordinary && ordinaryNorm !== null) {
          found[i] = ordinaryNorm;
          continue;
        }
        const row = pathRow(i);
        if (row === null) return null;
        found[i] = sumOfSquares(row.weights);
        if (ordinary) ordinaryNorm = found[i];
      }
      norms = found;
      return found;
    },
  };
}

function sumOfSquares(weights: Float64Array): number {
  let sum = 0;
  for (let j = 0; j < weights.length; j++) sum += weights[j] * weights[j];
  return sum;
}
