import { rowNormsSquared, rowProducts } from '../calculus/filter';
import {
  type NoisePath,
  type Stretch,
  addStretches,
  dotOfStretches,
  scaledStretch,
  stretchAt,
} from '../series/noisePath';
import { type Triangle, invertUpper } from './householder';

/** Where the fitted values sit in their series, so that noise can be followed back to the readings. */
export interface FittedPoints {
  /** Index in the series of each fitted value, ascending. */
  indices: Int32Array;
  /** Noise of the fitted values; null where they are plain numbers with independent scatter. */
  noise: NoisePath | null;
  /** Noise of what they are fitted against; null where that is exact, like time. */
  against: NoisePath | null;
}

/** Values at the same places of the readings of one root. */
interface RootVectors {
  root: NoisePath['root'];
  /** Ratio of this root's standard deviation to that of the first one. */
  ratio: number;
  vectors: Stretch[];
}

/** How the scatter about a fit moves its parameters. */
export interface FitNoise {
  /** Covariance of the solver's parameters. */
  covariance: number[][];
  /** Degrees of freedom by which it is known. */
  degreesOfFreedom: number;
  /**
   * For each root, how one standard deviation of each of its readings moves each of the solver's parameters; worked out when
   * asked for. Empty where the values are plain numbers.
   */
  effects(): { root: NoisePath['root']; byParameter: Stretch[] }[];
  /** How far a change of all values moves each of the solver's parameters, to first order: (JᵀJ)⁻¹Jᵀ·change. */
  moved(change: Float64Array): number[];
}

const square = (p: number, entry: (a: number, b: number) => number): number[][] =>
  Array.from({ length: p }, (_, a) => Array.from({ length: p }, (_unused, b) => entry(a, b)));

/** (RᵀR)⁻¹ times a variance: the covariance where all values scatter independently. */
export function independentCovariance(triangle: Triangle, variance: number): number[][] {
  const p = triangle.length;
  const inverse = invertUpper(triangle, p);
  return square(p, (a, b) => {
    let sum = 0;
    for (let k = 0; k < p; k++) sum += inverse[a][k] * inverse[b][k];
    return variance * sum;
  });
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
  const { indices, noise, against } = points;
  const n = indices.length;
  const inverse = invertUpper(triangle, p);
  /** (JᵀJ)⁻¹, by which sums over columns of J become parameters. */
  const normal = independentCovariance(triangle, 1);
  const times = (vectors: readonly Stretch[]): Stretch[] =>
    normal.map((row) =>
      vectors.reduce<Stretch>((sum, vector, k) => addStretches(sum, vector, row[k]), {
        first: vectors[0].first,
        weights: new Float64Array(0),
      }),
    );

  const moved = (change: Float64Array): number[] => {
    const sums = jacobian().map((column) => column.reduce((sum, value, i) => sum + value * change[i], 0));
    return normal.map((row) => row.reduce((sum, value, k) => sum + value * sums[k], 0));
  };

  if (against === null && (noise === null || noise.independent)) {
    const degreesOfFreedom = n - p;
    const variance = residualSumOfSquares / degreesOfFreedom;
    return {
      covariance: normal.map((row) => row.map((value) => value * variance)),
      degreesOfFreedom,
      moved,
      effects() {
        if (noise === null) return [];
        const sigma = Math.sqrt(variance);
        const spread = times(jacobian().map((column) => stretchAt(indices, column)));
        return [{ root: noise.root, byParameter: spread.map((stretch) => scaledStretch(stretch, sigma)) }];
      },
    };
  }

  const columns = jacobian();
  const slope = against === null ? null : slopes();
  const roots = spreadOverRoots(columns, points, slope);
  const gram = square(p, (a, b) =>
    a > b
      ? 0
      : roots.reduce(
          (sum, { ratio, vectors }) => sum + ratio * ratio * dotOfStretches(vectors[a], vectors[b]),
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
      for (let j = 0; j <= k; j++) for (let i = 0; i < n; i++) q[i] += inverse[j][k] * columns[j][i];
      return q;
    });
  const { trace, degreesOfFreedom } = scatterOf(points, slope, roots, orthonormal, explained);
  const variance =
    trace !== null && trace > 0 ? residualSumOfSquares / trace : ownNoise(noise ?? against, indices) ** 2;
  const sigma = Math.sqrt(variance);
  return {
    covariance: sandwich.map((row) => row.map((value) => value * variance)),
    degreesOfFreedom,
    moved,
    effects: () =>
      roots.map(({ root, ratio, vectors }) => ({
        root,
        byParameter: times(vectors).map((stretch) => scaledStretch(stretch, ratio * sigma)),
      })),
  };
}

function ownNoise(path: NoisePath | null, indices: Int32Array): number {
  if (path === null || indices.length === 0) return NaN;
  return path.root.level.between(indices[0], indices[indices.length - 1] + 1).standardDeviation;
}

/** FᵀJ and −GᵀDJ, column by column, gathered by root. */
function spreadOverRoots(
  columns: readonly Float64Array[],
  { indices, noise, against }: FittedPoints,
  slope: Float64Array | null,
): RootVectors[] {
  const roots: RootVectors[] = [];
  if (noise !== null)
    roots.push({
      root: noise.root,
      ratio: 1,
      vectors: columns.map((column) => noise.spread(stretchAt(indices, column))),
    });
  if (against === null || slope === null) return roots;
  const vectors = columns.map((column) => {
    const moved = new Float64Array(column.length);
    for (let i = 0; i < moved.length; i++) moved[i] = -slope[i] * column[i];
    return against.spread(stretchAt(indices, moved));
  });
  const shared = roots.find(({ root }) => root.key === against.root.key);
  if (shared !== undefined)
    shared.vectors = shared.vectors.map((vector, k) => addStretches(vector, vectors[k]));
  else {
    const own = ownNoise(noise, indices);
    const ratio = noise === null ? 1 : ownNoise(against, indices) / own;
    roots.push({ root: against.root, ratio: Number.isFinite(ratio) ? ratio : 0, vectors });
  }
  return roots;
}

/** Above this many values the degrees of freedom are told from the rows of V alone, without the fitted columns. */
const mostExact = 64;

/** tr(MV), and the degrees of freedom tr(MV)² / tr(MVMV), M = 1 − QQᵀ; `explained` is tr(QQᵀV). */
function scatterOf(
  { indices, noise, against }: FittedPoints,
  slope: Float64Array | null,
  roots: readonly RootVectors[],
  orthonormal: () => Float64Array[],
  explained: number,
): { trace: number | null; degreesOfFreedom: number } {
  const n = indices.length;
  const p = roots[0].vectors.length;
  const ratioOf = (path: NoisePath) => roots.find(({ root }) => root.key === path.root.key)?.ratio ?? 1;
  const shared = noise !== null && against !== null && noise.root.key === against.root.key;

  /** Row i of F − D G, as one or two rows over roots. */
  const rowsAt = (i: number): { key: string; row: Stretch }[] | null => {
    const found: { key: string; row: Stretch }[] = [];
    if (noise !== null) {
      const row = noise.row(indices[i]);
      if (row === null) return null;
      found.push({ key: noise.root.key, row });
    }
    if (against !== null && slope !== null) {
      const row = against.row(indices[i]);
      if (row === null) return null;
      if (shared) found[0] = { key: found[0].key, row: addStretches(found[0].row, row, -slope[i]) };
      else found.push({ key: against.root.key, row: scaledStretch(row, -slope[i] * ratioOf(against)) });
    }
    return found;
  };
  const shareOf = (a: { key: string; row: Stretch }[], b: { key: string; row: Stretch }[]) => {
    let sum = 0;
    for (const x of a) for (const y of b) if (x.key === y.key) sum += dotOfStretches(x.row, y.row);
    return sum;
  };

  const whole = wholeScatter(
    { indices, noise, against },
    slope,
    against === null ? 1 : ratioOf(against),
    shared,
  );
  if (whole === null) return { trace: null, degreesOfFreedom: n - p };
  const trace = whole - explained;

  if (n <= mostExact) {
    const q = orthonormal();
    const rows = Array.from({ length: n }, (_, i) => rowsAt(i) ?? []);
    const v = square(n, (i, j) => shareOf(rows[i], rows[j]));
    const projected = square(n, (i, j) => {
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
    return { trace, degreesOfFreedom: squared > 0 ? trace ** 2 / squared : n - p };
  }
  // tr(V)² / tr(V²) of one typical row in the middle stands for all of them.
  const middle = n >> 1;
  const here = rowsAt(middle) ?? [];
  let own = 0;
  let all = 0;
  const reach = Math.min(n >> 1, 4 * Math.max(...here.map(({ row }) => row.weights.length), 1));
  for (let j = Math.max(middle - reach, 0); j <= Math.min(middle + reach, n - 1); j++) {
    const entry = shareOf(here, rowsAt(j) ?? []);
    if (j === middle) own = entry;
    all += entry * entry;
  }
  return { trace, degreesOfFreedom: Math.max((n * own * own) / all - p, 1) };
}

/** tr V: the squared norms of all rows of F − D G. */
function wholeScatter(
  { indices, noise, against }: FittedPoints,
  slope: Float64Array | null,
  ratio: number,
  shared: boolean,
): number | null {
  const n = indices.length;
  const own = noise === null ? new Float64Array(n) : rowNormsSquared(noise, indices);
  const other = against === null || slope === null ? null : rowNormsSquared(against, indices);
  if (own === null || (against !== null && other === null)) return null;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += own[i];
  if (against === null || slope === null || other === null) return sum;
  const joint = shared && noise !== null ? rowProducts(noise, against, indices) : null;
  for (let i = 0; i < n; i++) {
    sum += (shared ? 1 : ratio * ratio) * slope[i] * slope[i] * other[i];
    if (joint !== null) sum -= 2 * slope[i] * joint[i];
  }
  return sum;
}

/** Carries a covariance through new = T·old, to first order: T C Tᵀ (JCGM 100:2008, 5.2.2 and annex H.2). */
export function transformCovariance(
  matrix: readonly (readonly number[])[],
  t: readonly (readonly number[])[],
): number[][] {
  const half = t.map((row) =>
    matrix[0].map((_, j) => row.reduce((sum, value, k) => sum + value * matrix[k][j], 0)),
  );
  return half.map((row) => t.map((other) => row.reduce((sum, value, k) => sum + value * other[k], 0)));
}
