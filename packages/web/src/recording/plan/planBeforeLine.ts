import { type Plan, type PlanPatch, usualPlan } from '@heuristor/contracts';
import { lengthOf } from '../pace/pace';

/** Beginning and end of runs as they were before a line set others, by whatever stands for the bench. */
const before = new WeakMap<object, Pick<Plan, 'begin' | 'end'>>();

/** So long a person has to get ready for a line. */
export const lineCountdown: Plan['begin'] = { kind: 'countdown', seconds: 3 };

const isByLine = ({ pace, end }: Plan): boolean =>
  pace !== null && end.kind === 'after' && end.seconds === lengthOf(pace);

/** Remembers how runs began and ended before a line says it. */
export function keepBeforeLine(bench: object, plan: Plan): void {
  if (!isByLine(plan)) before.set(bench, { begin: plan.begin, end: plan.end });
}

/** What goes with a line when it is left: its countdown and its end, where nobody has set others since. */
export function leavingLine(bench: object, plan: Plan): PlanPatch {
  if (plan.way !== 'pace' || !isByLine(plan)) return {};
  const { begin, end } = before.get(bench) ?? usualPlan;
  const isCountdown = plan.begin.kind === 'countdown' && plan.begin.seconds === 3;
  return { end, ...(isCountdown ? { begin } : {}) };
}
