import { type Quantity, halfWidth } from '../../results/quantity';

/** What an interval has to hold: the truth in 68.27 of 100 cases, or, where a sensor's step decides, in those of a rectangle, or between the two. */
export type Expected = 'normal' | 'rectangular' | 'between';

/** Shares of cases that an interval may hold, over 1000 and over 4000 repetitions. */
export const allowed: Record<Expected, { thousand: [number, number]; more: [number, number] }> = {
  normal: { thousand: [0.635, 0.725], more: [0.65, 0.71] },
  // Uniform over one step, ± step/√12 holds 1/√3 of it.
  rectangular: { thousand: [0.53, 0.63], more: [0.55, 0.61] },
  // Where noise and steps are of one size.
  between: { thousand: [0.54, 0.735], more: [0.55, 0.725] },
};

/** One kind of result whose ± is held against simulated runs of known truth. */
export interface TruthCase {
  title: string;
  expected: Expected;
  /** True of one that takes long: `npm test` leaves it to `npm run bench truth`. */
  slow?: true;
  /** Repetition number `i`, the same every time. */
  trial(i: number): { quantity: Quantity; truth: number };
}

/** Share of repetitions in which value ± half width holds the truth. */
export function coverageOfCase({ trial }: TruthCase, repetitions: number): number {
  let inside = 0;
  for (let i = 0; i < repetitions; i++) {
    const { quantity, truth } = trial(i);
    if (Math.abs(quantity.value - truth) <= (halfWidth(quantity) ?? 0)) inside++;
  }
  return inside / repetitions;
}
