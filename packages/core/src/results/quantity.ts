import { type WeightSpan, addSpans, dotOfSpans, normSquared } from '../series/noisePath';
import { coverageFactor } from '../statistics/significance';
import { type Unit } from '../units/unit';

/**
 * One root of uncertainty and how strongly it moves a value, in the unit of the value, for one standard deviation of the
 * root: for the readings of a channel one number a reading, for a constant one number.
 */
export interface Influence {
  /** The same text for the same root, in all entries and all runs. */
  root: string;
  /** What people call the root: "readings of x", "m". */
  label: string;
  effect: WeightSpan;
}

/** A value with everything that moves it. */
export interface Quantity {
  value: number;
  unit: Unit;
  /** One standard deviation (JCGM 100:2008); null where the value has none of its own. */
  standardUncertainty: number | null;
  /** Degrees of freedom by which the standard uncertainty is known; Infinity where it was given. */
  degreesOfFreedom: number;
  /** What the uncertainty is made of: Σ effect² = u². Worked out when it is asked for. */
  influences(): Influence[];
}

/** A value without an uncertainty of its own. */
export const exactly = (value: number, unit: Unit): Quantity => ({
  value,
  unit,
  standardUncertainty: null,
  degreesOfFreedom: Infinity,
  influences: () => [],
});

/**
 * Half the width of the interval that covers the truth 68.27 times in a hundred: the standard uncertainty, widened by
 * Student's t where it is known by few degrees of freedom (JCGM 100:2008, annex G). This is what stands behind ±.
 */
export function halfWidth({ standardUncertainty, degreesOfFreedom }: Quantity): number | null {
  if (standardUncertainty === null || !Number.isFinite(standardUncertainty)) return null;
  const factor = coverageFactor(degreesOfFreedom);
  return Number.isNaN(factor) ? null : factor * standardUncertainty;
}

/** Variance that an influence stands for. */
export const varianceOf = ({ effect }: Influence): number => normSquared(effect.weights);

/** The covariance of two values: what the roots that they share do to both (JCGM 100:2008, F.1.2.3). */
export function covarianceOf(a: Quantity, b: Quantity): number {
  const others = b.influences();
  let sum = 0;
  for (const { root, effect } of a.influences())
    for (const other of others) if (other.root === root) sum += dotOfSpans(effect, other.effect);
  return sum;
}

/** The same influences, each root once. */
export function merged(influences: readonly Influence[]): Influence[] {
  const byRoot = new Map<string, Influence>();
  for (const { root, label, effect } of influences) {
    const known = byRoot.get(root);
    byRoot.set(root, {
      root,
      label,
      effect: known === undefined ? effect : addSpans(known.effect, effect),
    });
  }
  return [...byRoot.values()];
}

/** One row of the budget of an uncertainty (JCGM 100:2008, H.1, table H.1). */
export interface BudgetRow {
  label: string;
  /** Standard uncertainty that this root alone gives the value, in its unit. */
  standardUncertainty: number;
  /** Share of the variance. */
  share: number;
}

/** Which root contributes how much to the uncertainty of a value, the largest first. */
export function budgetOf(quantity: Quantity): BudgetRow[] {
  const rows = new Map<string, { label: string; variance: number }>();
  for (const influence of quantity.influences()) {
    const row = rows.get(influence.root) ?? { label: influence.label, variance: 0 };
    row.variance += varianceOf(influence);
    rows.set(influence.root, row);
  }
  const total = [...rows.values()].reduce((sum, { variance }) => sum + variance, 0);
  return [...rows.values()]
    .map(({ label, variance }) => ({
      label,
      standardUncertainty: Math.sqrt(variance),
      share: total > 0 ? variance / total : 0,
    }))
    .sort((a, b) => b.share - a.share);
}

/**
 * Effective degrees of freedom of a sum of independent contributions (Welch and Satterthwaite; JCGM 100:2008, G.4).
 * @param parts variance and degrees of freedom of each
 */
export function effectiveDegreesOfFreedom(
  parts: readonly { variance: number; degreesOfFreedom: number }[],
): number {
  const total = parts.reduce((sum, { variance }) => sum + variance, 0);
  const below = parts.reduce(
    (sum, { variance, degreesOfFreedom }) => sum + (variance * variance) / degreesOfFreedom,
    0,
  );
  return below > 0 ? (total * total) / below : Infinity;
}

/** Sums of squares over a run are known to this share of themselves. */
const roundingOf = 1e-13;

/**
 * An uncertainty of its own together with what is shared with other values. Where both come from the same readings, as when the
 * mean of a series is taken off it, they count with their covariance.
 */
export function withShared(
  { standardUncertainty, degreesOfFreedom, influences }: Omit<Quantity, 'value' | 'unit'>,
  shared: readonly Influence[],
): Pick<Quantity, 'standardUncertainty' | 'degreesOfFreedom'> {
  const own = standardUncertainty ?? 0;
  if (shared.length === 0) return { standardUncertainty: own, degreesOfFreedom };
  const gathered = merged(shared);
  const variance = gathered.reduce((sum, influence) => sum + varianceOf(influence), 0);
  const roots = new Set(gathered.map(({ root }) => root));
  const inBoth = influences().filter(({ root }) => roots.has(root));
  const joint = inBoth.reduce(
    (sum, { root, effect }) =>
      sum +
      gathered.reduce(
        (part, other) => part + (other.root === root ? dotOfSpans(effect, other.effect) : 0),
        0,
      ),
    0,
  );
  const sum = own * own + variance + 2 * joint;
  return {
    // What is left where both take each other away is rounding, and no uncertainty.
    standardUncertainty: sum > roundingOf * (own * own + variance) ? Math.sqrt(sum) : 0,
    degreesOfFreedom: effectiveDegreesOfFreedom([
      { variance: own * own, degreesOfFreedom },
      { variance, degreesOfFreedom: Infinity },
    ]),
  };
}
