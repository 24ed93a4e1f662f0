import { type NoisePath, dotOfSpans } from '../series/noisePath';

/** One number for each of many rows; a single one where all are alike. */
export type RowProducts = number | Float64Array;

export const productAt = (products: RowProducts, i: number): number =>
  typeof products === 'number' ? products : products[i];

/** Their sum over so many rows. */
export function totalOf(products: RowProducts, count: number): number {
  if (typeof products === 'number') return products * count;
  let sum = 0;
  for (let i = 0; i < count; i++) sum += products[i];
  return sum;
}

/** The product of rows of two paths at ascending indices, or null where rows are not sparse; ordinary ones once. */
export function rowProducts(a: NoisePath, b: NoisePath, indices: ArrayLike<number>): RowProducts | null {
  const n = indices.length;
  const productOf = (i: number): number | null => {
    const [rowA, rowB] = [a.row(i), b.row(i)];
    return rowA === null || rowB === null ? null : dotOfSpans(rowA, rowB);
  };
  if (n === 0) return 0;
  const isOrdinary = (low: number, high: number) => a.isOrdinary(low, high) && b.isOrdinary(low, high);
  if (isOrdinary(indices[0], indices[n - 1] + 1)) return productOf(indices[n >> 1]);
  const products = new Float64Array(n);
  let ordinary = NaN;
  const [from, to] = ordinaryPart(indices, isOrdinary);
  for (let k = 0; k < n; k++) {
    if (k > from && k < to) {
      products[k] = ordinary;
      continue;
    }
    const i = indices[k];
    const here = isOrdinary(i, i + 1);
    if (here && ordinary === ordinary) {
      products[k] = ordinary;
      continue;
    }
    const product = productOf(i);
    if (product === null) return null;
    products[k] = product;
    if (here) ordinary = product;
  }
  return products;
}

/** Where all rows are ordinary but for some at both ends: the first of these places, and the one past the last; nothing else. */
function ordinaryPart(
  indices: ArrayLike<number>,
  isOrdinary: (low: number, high: number) => boolean,
): [from: number, to: number] {
  let [from, to] = [0, indices.length];
  while (from < to && !isOrdinary(indices[from], indices[from] + 1)) from++;
  while (to > from && !isOrdinary(indices[to - 1], indices[to - 1] + 1)) to--;
  return to > from && isOrdinary(indices[from], indices[to - 1] + 1) ? [from, to] : [0, 0];
}

/** (F Fᵀ)ᵢᵢ for values at ascending indices, or null where rows are not sparse. */
export const rowNormsSquared = (path: NoisePath, indices: ArrayLike<number>): RowProducts | null =>
  path.independent ? 1 : rowProducts(path, path, indices);
