import { type Influence, type Quantity } from '../results/quantity';
import { dotOfSpans } from '../series/noisePath';
import { type EachFound } from '../workings/outcome';

/** Something that moves several numbers, and by how much each for one standard deviation of it. */
export interface Together {
  root: string;
  label: string;
  effects: Float64Array;
}

/** An effect that is so small a share of an uncertainty is none. */
const rounding = 1e-9;

/** Roots of a run carry its id; whatever else moves a number by one share of its own may be shared with anything. */
const isOfRun = (runId: string, { root, effect }: Influence): boolean =>
  root.startsWith(`${runId}/`) || effect.first !== 0 || effect.weights.length !== 1;

/**
 * What numbers that were found one by one in a run owe to the same sources: a zero or a calibration to all of them, readings of the
 * run to those that lie near each other (JCGM 100:2008, F.1.2.3).
 * @param of by which their common roots are called
 */
export function togetherOf(runId: string, of: string, { quantities, reach, between }: EachFound): Together[] {
  const influences = quantities.map((quantity) => influencesOf(quantity));
  const shared = new Map<string, Together>();
  for (const [i, own] of influences.entries())
    for (const influence of own) {
      if (isOfRun(runId, influence)) continue;
      const { root, label, effect } = influence;
      // A zero moves no moment, but for rounding.
      if (Math.abs(effect.weights[0]) <= rounding * (quantities[i].standardUncertainty ?? 0)) continue;
      let found = shared.get(root);
      if (found === undefined)
        shared.set(root, (found = { root, label, effects: new Float64Array(quantities.length) }));
      found.effects[i] += effect.weights[0];
    }
  const ofRun = influences.map((own) => own.filter((influence) => isOfRun(runId, influence)));
  const near: Together[] = [];
  for (let apart = 1; apart <= reach; apart++)
    for (let later = apart; later < quantities.length; later++) {
      const covariance = covarianceOf(ofRun[later - apart], ofRun[later]);
      if (!(Math.abs(covariance) > 0)) continue;
      const effects = new Float64Array(quantities.length);
      effects[later - apart] = Math.sqrt(Math.abs(covariance));
      effects[later] = Math.sign(covariance) * effects[later - apart];
      near.push({ root: `${runId}/${of}/${apart}/${later}`, label: between(later, apart), effects });
    }
  return [...shared.values(), ...near];
}

/** A number that is none owes nothing to anything. */
const influencesOf = (quantity: Quantity): Influence[] =>
  Number.isNaN(quantity.value) ? [] : quantity.influences();

function covarianceOf(a: readonly Influence[], b: readonly Influence[]): number {
  let sum = 0;
  for (const { root, effect } of a)
    for (const other of b) if (other.root === root) sum += dotOfSpans(effect, other.effect);
  return sum;
}
