import { square } from '../elementary';
import { type WeightSpan, addSpans, scaledSpan } from '../series/noisePath';
import { type Unit } from '../units/unit';
import { type Influence, type Quantity, effectiveDegreesOfFreedom, varianceOf } from './quantity';

/** A quantity that another one is worked out from, and the derivative of that one by it. */
export interface Part {
  quantity: Quantity;
  derivative: number;
}

/**
 * A value worked out from others, its uncertainty by first-order propagation (JCGM 100:2008, 5.1 and 5.2): what the parts'
 * roots do to each of them is added root by root, so that parts that come from the same readings count with their covariance.
 * Degrees of freedom by Welch and Satterthwaite where the parts are independent (G.4.1); where they share a root, for which
 * that formula does not hold, the fewest that any of them has.
 */
export function combined(value: number, unit: Unit, parts: readonly Part[]): Quantity {
  const uncertain = parts.filter(
    ({ quantity, derivative }) => quantity.standardUncertainty !== null && derivative !== 0,
  );
  if (uncertain.length === 0)
    return { value, unit, standardUncertainty: null, degreesOfFreedom: Infinity, influences: () => [] };
  let gathered: Influence[] | null = null;
  const influences = () => (gathered ??= gather(uncertain));
  if (uncertain.length === 1) {
    // Nothing to share a root with: what moves it need not be gone through before somebody asks.
    const [{ quantity, derivative }] = uncertain;
    return {
      value,
      unit,
      standardUncertainty: Math.abs(derivative) * (quantity.standardUncertainty ?? NaN),
      degreesOfFreedom: quantity.degreesOfFreedom,
      influences,
    };
  }
  const variance = influences().reduce((sum, influence) => sum + varianceOf(influence), 0);
  return {
    value,
    unit,
    standardUncertainty: Math.sqrt(variance),
    degreesOfFreedom: sharesRoot(uncertain)
      ? Math.min(...uncertain.map(({ quantity }) => quantity.degreesOfFreedom))
      : effectiveDegreesOfFreedom(
          uncertain.map(({ quantity, derivative }) => ({
            variance: square(derivative * (quantity.standardUncertainty ?? 0)),
            degreesOfFreedom: quantity.degreesOfFreedom,
          })),
        ),
    influences,
  };
}

function gather(parts: readonly Part[]): Influence[] {
  const byRoot = new Map<string, Influence>();
  for (const { quantity, derivative } of parts)
    for (const { root, label, effect } of quantity.influences()) {
      const known = byRoot.get(root);
      byRoot.set(root, {
        root,
        label,
        effect:
          known === undefined ? scaledSpan(effect, derivative) : addSpans(known.effect, effect, derivative),
      });
    }
  return [...byRoot.values()];
}

/** Whether two parts come from the same readings of a root; other readings of the same channel are others. */
function sharesRoot(parts: readonly Part[]): boolean {
  const seen: Influence[] = [];
  for (const { quantity } of parts) {
    const own = quantity.influences();
    for (const influence of own)
      if (seen.some((other) => other.root === influence.root && overlap(other.effect, influence.effect)))
        return true;
    seen.push(...own);
  }
  return false;
}

const overlap = (a: WeightSpan, b: WeightSpan): boolean =>
  Math.max(a.first, b.first) < Math.min(a.first + a.weights.length, b.first + b.weights.length);
