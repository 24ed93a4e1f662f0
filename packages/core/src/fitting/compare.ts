import { log } from '../elementary';
import { Refusal, orRefusal } from '../refusal';
import { runsTest } from '../statistics/runsTest';
import { type Unit, one } from '../units/unit';
import { fromAbsoluteZero } from './absoluteZero';
import { fitRelation } from './fit';
import { type FittedPoints } from './covariance';
import { independentShare } from './independentShare';
import { type FitPoints } from './relation';
import { type RelationKey, relationKeys, relationOf } from './relations';

/** One relation tried on points. */
export interface TriedRelation {
  key: RelationKey;
  title: string;
  formula: string;
  found:
    | { kind: 'refused'; sentence: string }
    | {
        kind: 'fitted';
        curve: { x: Float64Array; y: Float64Array };
        /** At the points that were tried. */
        residuals: { x: Float64Array; y: Float64Array };
        rSquared: number;
        parameterCount: number;
        /** How much more than the best this one fails to explain, each parameter counted: difference of AICc; 0 is the best. */
        gap: number;
        /** Whether neighbouring residuals go together, as they do where a relation misses something. */
        hasPattern: boolean;
      };
}

const mostPoints = 400;
const curvePoints = 80;
/** Chance makes as few runs of one sign once in 740 times (normal distribution). */
const clearly = -3;

/**
 * Tries every relation on points, the one first that explains most of their scatter for its number of parameters: by AICc, the
 * corrected criterion of Akaike (Hurvich and Tsai, Biometrika 76 (1989) 297), of readings with one variance; of a series that went
 * through a filter only so many count as are independent. Of many points some that lie evenly are tried.
 *
 * @param most so many; fewer are quicker, and enough to tell which relations are likely
 */
export function tryRelations(
  points: FitPoints & Partial<FittedPoints>,
  units: { x: Unit; y: Unit } = { x: one, y: one },
  most = mostPoints,
): TriedRelation[] {
  const few = thinned(points, most);
  const { noise = null, indices = new Int32Array(0) } = points;
  // Neighbours in what went through a filter are not as many readings as they are values.
  const independent = points.x.length * independentShare({ noise, indices });
  const n = Math.min(few.x.length, independent);
  const stride = Math.max(Math.round(few.x.length / n), 1);
  // Exact points leave nothing but rounding.
  const least = 1e-24 * few.y.reduce((sum, y) => sum + y * y, 0);
  const tried = relationKeys.map((key) => {
    const relation = fromAbsoluteZero(relationOf(key), units);
    const { title, formula, parameterCount } = relation;
    const about = { key, title, formula };
    const fit = orRefusal(() => fitRelation(relation, few, undefined, { moving: true }));
    if (fit instanceof Refusal)
      return { about, aicc: Infinity, refused: fit.message, fit: null, parameterCount };
    // The variance is a parameter too.
    const k = parameterCount + 1;
    const aicc =
      n > k + 1
        ? n * log(Math.max(fit.residualSumOfSquares, least) / few.x.length) +
          2 * k +
          (2 * k * (k + 1)) / (n - k - 1)
        : Infinity;
    return { about, aicc, refused: null, fit, parameterCount };
  });
  const best = Math.min(...tried.map(({ aicc }) => aicc));
  const ordered = tried
    .map((one, place) => ({ ...one, place }))
    .sort(
      (a, b) =>
        Number(a.fit === null) - Number(b.fit === null) || compared(a.aicc, b.aicc) || a.place - b.place,
    );
  const [low, high] = [Math.min(...few.x), Math.max(...few.x)];
  const places = Float64Array.from(
    { length: curvePoints },
    (_, i) => low + ((high - low) * i) / (curvePoints - 1),
  );
  const order = Int32Array.from(few.x.keys()).sort((a, b) => few.x[a] - few.x[b]);
  return ordered.map(({ about, aicc, refused, fit, parameterCount }) => {
    if (fit === null) return { ...about, found: { kind: 'refused', sentence: refused ?? '' } };
    const residuals = fit.residuals();
    return {
      ...about,
      found: {
        kind: 'fitted',
        curve: { x: places, y: places.map(fit.valueAt) },
        residuals: { x: few.x, y: residuals },
        rSquared: fit.rSquared,
        parameterCount,
        gap: Number.isFinite(best) ? aicc - best : 0,
        // What rounding leaves over of exact points has patterns of its own.
        hasPattern:
          fit.residualSumOfSquares > least &&
          runsTest(
            Array.from(
              order.filter((_, k) => k % stride === 0),
              (i) => residuals[i],
            ),
          ) < clearly,
      },
    };
  });
}

const compared = (a: number, b: number) => (a === b ? 0 : a - b);

function thinned({ x, y }: FitPoints, most: number): FitPoints {
  const n = x.length;
  if (n <= most) return { x, y };
  const places = Array.from({ length: most }, (_, i) => Math.round((i * (n - 1)) / (most - 1)));
  return { x: Float64Array.from(places, (i) => x[i]), y: Float64Array.from(places, (i) => y[i]) };
}
