import { square } from '../elementary';
import { addScaled, negatedProducts } from '../vectors';
import { productAt, rowNormsSquared, rowProducts, totalOf } from '../calculus/rowProducts';
import {
  type NoisePath,
  type WeightSpan,
  addSpans,
  dotOfSpans,
  scaledSpan,
  spanAt,
  sumOfSpans,
} from '../series/noisePath';
import { type Triangle, emptyTriangle, invertUpper } from './householder';
import { type RootVectors, spreadOf } from './spreadLately';

/** Where the fitted values sit in their series, so that noise can be followed back to the readings. */
export interface FittedPoints {
  /** Index in the series of each fitted value, ascending. */
  indices: Int32Array;
  /** Noise of the fitted values; null where they are plain numbers with independent scatter. */
  noise: NoisePath | null;
  /** Noise of what they are fitted against; null where that is exact, like time. */
  against: NoisePath | null;
  /** Where either comes from the readings of several channels: the ways to the others. */
  further?: readonly NoisePath[];
  furtherAgainst?: readonly NoisePath[];
}

/** One way from readings to the scatter about a fit: straight, or by what the values are fitted against. */
interface Way {
  path: NoisePath;
  isAgainst: boolean;
}

const waysOf = ({ noise, against, further = [], furtherAgainst = [] }: FittedPoints): Way[] => [
  ...(noise === null ? [] : [noise, ...further]).map((path) => ({ path, isAgainst: false })),
  ...(against === null ? [] : [against, ...furtherAgainst]).map((path) => ({ path, isAgainst: true })),
];

/** How the scatter about a fit moves its parameters. */
export interface FitNoise {
  /** Covariance of the solver's parameters. */
  covariance: number[][];
  /** Degrees of freedom by which it is known. */
  degreesOfFreedom: number;
  /**
   * For each root, how one standard deviation of each of its readings moves a sum of the solver's parameters, each times its
   * factor; worked out when asked for. Empty where the values are plain numbers.
   */
  effectsOn(factors: readonly number[]): { root: NoisePath['root']; effect: WeightSpan }[];
  /** How far a change of all values moves each of the solver's parameters, to first order: (JᵀJ)⁻¹Jᵀ·change. */
  moved(change: Float64Array): number[];
}

function squareMatrix(p: number, entry: (a: number, b: number) => number): number[][] {
  const rows: number[][] = [];
  for (let a = 0; a < p; a++) {
    rows.push([]);
    for (let b = 0; b < p; b++) rows[a].push(entry(a, b));
  }
  return rows;
}

/** (RᵀR)⁻¹ times a variance: the covariance where all values scatter independently. */
export function independentCovariance(triangle: Triangle, variance: number): number[][] {
  const p = triangle.length;
  const inverse = invertUpper(triangle, p);
  const covariance = emptyTriangle(p);
  for (let a = 0; a < p; a++)
    for (let b = 0; b < p; b++) covariance[a][b] = variance * dot(inverse[a], inverse[b]);
  return covariance;
}

/**
 * Noise of least-squares parameters at a solution. Independent values: s² (JᵀJ)⁻¹. Otherwise the values' noise is F·(noise
 * of the readings), and that of what they are fitted against, G·(noise of its readings), tells on them by the slope D of the
 * relation; the parameters move by P (F − D G)·(noise) with P = (JᵀJ)⁻¹Jᵀ. The one variance is estimated from
 * RSS = σ² tr((1 − QQᵀ) V) in the mean, V = (F − D G)(F − D G)ᵀ (Seber and Lee, Linear Regression Analysis, 2nd ed. 2003,
 * th. 1.5); where two sensors take part, the ratio of their noises is that of their readings' own. The degrees of freedom
 * follow Satterthwaite: tr(MV)² / tr(MVMV).
 * @param slopes derivative of the relation at each value; asked for only where `against` has noise
 */
export function fitNoise(
  triangle: Triangle,
  jacobian: () => Float64Array[],
  residualSumOfSquares: number,
  points: FittedPoints,
  slopes: () => Float64Array,
): FitNoise {
  const p = triangle.length;
  const { indices, noise, against, further = [] } = points;
  const n = indices.length;
  const inverse = invertUpper(triangle, p);
  /** (JᵀJ)⁻¹, by which sums over columns of J become parameters. */
  const normal = independentCovariance(triangle, 1);
  /** What sums over columns of J weigh in a sum of parameters, each times its factor. */
  const weighing = (factors: readonly number[]): number[] =>
    normal.map((_, k) => factors.reduce((sum, factor, j) => sum + factor * normal[j][k], 0));

  const moved = (change: Float64Array): number[] => {
    const sums = jacobian().map((column) => dot(column, change));
    return normal.map((row) => dot(row, sums));
  };

  if (against === null && (noise === null || (noise.independent && further.length === 0))) {
    const degreesOfFreedom = n - p;
    const variance = residualSumOfSquares / degreesOfFreedom;
    return {
      covariance: normal.map((row) => row.map((value) => value * variance)),
      degreesOfFreedom,
      moved,
      effectsOn(factors) {
        if (noise === null) return [];
        const sigma = Math.sqrt(variance);
        const summed = new Float64Array(n);
        const columns = jacobian();
        weighing(factors).forEach((weight, k) => addScaled(summed, columns[k], sigma * weight));
        return [{ root: noise.root, effect: spanAt(indices, summed) }];
      },
    };
  }

  const slope = () => (against === null ? null : slopes());
  const own = {};
  const columns = jacobian();
  const { covariance, degreesOfFreedom, sigma } = spreadNoise(
    columns,
    slope(),
    spreadOf(own, () => spreadOverRoots(columns, points, slope())),
    points,
    { inverse, normal },
    residualSumOfSquares,
  );
  return {
    covariance,
    degreesOfFreedom,
    moved,
    effectsOn(factors) {
      const weights = weighing(factors).map((weight) => weight * sigma);
      const spread = spreadOf(own, () => spreadOverRoots(jacobian(), points, slope()));
      return spread.map(({ root, ratio, vectors }) => ({
        root,
        effect: sumOfSpans(vectors.map((vector, k) => [vector, weights[k] * ratio])),
      }));
    },
  };
}

/** What noise that comes from readings by filters does to parameters, and the standard deviation of the first root. */
function spreadNoise(
  columns: readonly Float64Array[],
  slope: Float64Array | null,
  roots: readonly RootVectors[],
  points: FittedPoints,
  { inverse, normal }: { inverse: number[][]; normal: number[][] },
  residualSumOfSquares: number,
): { covariance: number[][]; degreesOfFreedom: number; sigma: number } {
  const p = columns.length;
  const { indices, noise, against } = points;
  const n = indices.length;
  const gram = squareMatrix(p, (a, b) =>
    a > b
      ? 0
      : roots.reduce(
          (sum, { ratio, vectors }) => sum + ratio * ratio * dotOfSpans(vectors[a], vectors[b]),
          0,
        ),
  );
  for (let a = 0; a < p; a++) for (let b = 0; b < a; b++) gram[a][b] = gram[b][a];
  const sandwich = transformCovariance(gram, normal);
  let explained = 0;
  for (let a = 0; a < p; a++) for (let b = 0; b < p; b++) explained += normal[a][b] * gram[b][a];
  const orthonormal = () =>
    Array.from({ length: p }, (_, k) => {
      const q = new Float64Array(n);
      for (let j = 0; j <= k; j++) addScaled(q, columns[j], inverse[j][k]);
      return q;
    });
  const { trace, degreesOfFreedom } = scatterOf(points, slope, roots, orthonormal, explained);
  const variance =
    trace !== null && trace > 0 ? residualSumOfSquares / trace : square(ownNoise(noise ?? against, indices));
  return {
    covariance: sandwich.map((row) => row.map((value) => value * variance)),
    degreesOfFreedom,
    sigma: Math.sqrt(variance),
  };
}

function ownNoise(path: NoisePath | null, indices: Int32Array): number {
  if (path === null || indices.length === 0) return NaN;
  return path.root.level.between(indices[0], indices[indices.length - 1] + 1).standardDeviation;
}

/** FᵀJ and −GᵀDJ, column by column, gathered by root. */
function spreadOverRoots(
  columns: readonly Float64Array[],
  points: FittedPoints,
  slope: Float64Array | null,
): RootVectors[] {
  const { indices, noise, against } = points;
  const first = ownNoise(noise ?? against, indices);
  const roots: RootVectors[] = [];
  for (const { path, isAgainst } of waysOf(points)) {
    if (isAgainst && slope === null) continue;
    const vectors: WeightSpan[] = [];
    for (const column of columns) {
      const moved = isAgainst && slope !== null ? negatedProducts(slope, column) : column;
      vectors.push(path.spread(spanAt(indices, moved)));
    }
    const shared = roots.find(({ root }) => root.key === path.root.key);
    if (shared !== undefined)
      shared.vectors = shared.vectors.map((vector, k) => addSpans(vector, vectors[k]));
    else {
      const ratio = roots.length === 0 ? 1 : ownNoise(path, indices) / first;
      roots.push({ root: path.root, ratio: Number.isFinite(ratio) ? ratio : 0, vectors });
    }
  }
  return roots;
}

/** Above this many values the degrees of freedom are found from the rows of V alone, without the fitted columns. */
const mostExact = 64;

/** tr(MV), and the degrees of freedom tr(MV)² / tr(MVMV), M = 1 − QQᵀ; `explained` is tr(QQᵀV). */
function scatterOf(
  points: FittedPoints,
  slope: Float64Array | null,
  roots: readonly RootVectors[],
  orthonormal: () => Float64Array[],
  explained: number,
): { trace: number | null; degreesOfFreedom: number } {
  const { indices, noise, against } = points;
  const n = indices.length;
  const p = roots[0].vectors.length;
  const ratioOf = (path: NoisePath) => roots.find(({ root }) => root.key === path.root.key)?.ratio ?? 1;
  const ways = waysOf(points);

  /** Row i of F − D G, as rows over roots. */
  const rowsAt = (i: number): Row[] | null => {
    const found: Row[] = [];
    for (const { path, isAgainst } of ways) {
      if (isAgainst && slope === null) continue;
      const row = path.row(indices[i]);
      if (row === null) return null;
      const { key } = path.root;
      const factor = (isAgainst && slope !== null ? -slope[i] : 1) * ratioOf(path);
      const shared = found.find((other) => other.key === key);
      if (shared === undefined) found.push({ key, row: factor === 1 ? row : scaledSpan(row, factor) });
      else shared.row = addSpans(shared.row, row, factor);
    }
    return found;
  };
  const shareOf = (a: readonly Row[], b: readonly Row[]) => {
    let sum = 0;
    for (const x of a) for (const y of b) if (x.key === y.key) sum += dotOfSpans(x.row, y.row);
    return sum;
  };

  const isPlain = points.further === undefined && points.furtherAgainst === undefined;
  const whole = isPlain
    ? wholeScatter(
        { indices, noise, against },
        slope,
        against === null ? 1 : ratioOf(against),
        noise !== null && against !== null && noise.root.key === against.root.key,
      )
    : scatterOfRows(n, rowsAt, shareOf);
  if (whole === null) return { trace: null, degreesOfFreedom: n - p };
  const trace = whole - explained;

  if (n <= mostExact) {
    const q = orthonormal();
    const rows = Array.from({ length: n }, (_, i) => rowsAt(i) ?? []);
    const v = squareMatrix(n, (i, j) => shareOf(rows[i], rows[j]));
    const projected = squareMatrix(n, (i, j) => {
      let sum = v[i][j];
      for (let k = 0; k < p; k++) {
        let along = 0;
        for (let l = 0; l < n; l++) along += q[k][l] * v[l][j];
        sum -= q[k][i] * along;
      }
      return sum;
    });
    let squared = 0;
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) squared += projected[i][j] * projected[j][i];
    return { trace, degreesOfFreedom: squared > 0 ? square(trace) / squared : n - p };
  }
  // tr(V)² / tr(V²) of one typical row in the middle stands for all of them.
  const middle = n >> 1;
  const here = rowsAt(middle) ?? [];
  let own = 0;
  let all = 0;
  // Rows further apart than they are long have no reading in common.
  const reach = Math.min(n >> 1, Math.max(...here.map(({ row }) => row.weights.length), 1));
  for (let j = Math.max(middle - reach, 0); j <= Math.min(middle + reach, n - 1); j++) {
    const entry = shareOf(here, rowsAt(j) ?? []);
    if (j === middle) own = entry;
    all += entry * entry;
  }
  return { trace, degreesOfFreedom: Math.max((n * own * own) / all - p, 1) };
}

/** A row of what turns readings of one root into a scatter. */
interface Row {
  key: string;
  row: WeightSpan;
}

/** So many rows tell the norms of all. */
const mostRows = 2000;

/** tr V, found from rows that lie evenly. */
function scatterOfRows(
  n: number,
  rowsAt: (i: number) => Row[] | null,
  shareOf: (a: readonly Row[], b: readonly Row[]) => number,
): number | null {
  const stride = Math.ceil(n / mostRows);
  let sum = 0;
  let count = 0;
  for (let i = 0; i < n; i += stride) {
    const rows = rowsAt(i);
    if (rows === null) return null;
    sum += shareOf(rows, rows);
    count++;
  }
  return (sum * n) / count;
}

/** tr V: the squared norms of all rows of F − D G. */
function wholeScatter(
  { indices, noise, against }: FittedPoints,
  slope: Float64Array | null,
  ratio: number,
  shared: boolean,
): number | null {
  const n = indices.length;
  const own = noise === null ? 0 : rowNormsSquared(noise, indices);
  const other = against === null || slope === null ? null : rowNormsSquared(against, indices);
  if (own === null || (against !== null && other === null)) return null;
  let sum = totalOf(own, n);
  if (against === null || slope === null || other === null) return sum;
  const joint = shared && noise !== null ? rowProducts(noise, against, indices) : null;
  const factor = shared ? 1 : ratio * ratio;
  for (let i = 0; i < n; i++) sum += factor * slope[i] * slope[i] * productAt(other, i);
  if (joint !== null) for (let i = 0; i < n; i++) sum -= 2 * slope[i] * productAt(joint, i);
  return sum;
}

/** Carries a covariance through new = T·old, to first order: T C Tᵀ (JCGM 100:2008, 5.2.2 and annex H.2). */
export function transformCovariance(
  matrix: readonly (readonly number[])[],
  t: readonly (readonly number[])[],
): number[][] {
  const transformed: number[][] = [];
  for (const row of t) {
    const half = matrix.map(() => 0);
    for (let j = 0; j < half.length; j++)
      for (let k = 0; k < row.length; k++) half[j] += row[k] * matrix[k][j];
    transformed.push(t.map((other) => dot(half, other)));
  }
  return transformed;
}

function dot(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

/** √(gᵀ C g). */
export function uncertaintyAlong(
  gradient: readonly number[],
  covariance: readonly (readonly number[])[],
): number {
  let sum = 0;
  gradient.forEach((a, i) => gradient.forEach((b, j) => (sum += a * b * covariance[i][j])));
  return Math.sqrt(Math.max(sum, 0));
}
