import { type Quantity, halfWidth } from '../../results/quantity';
import { isThorough } from '../effort';

/** What an interval has to hold: the truth in 68.27 of 100 cases, or, where a sensor's step decides, in those of a rectangle, or between the two. */
export type Expected = 'normal' | 'rectangular' | 'between';

/** Shares of cases that an interval may hold, over 100, 300, 1000 and 4000 repetitions; the first two are narrow, and decide only for it. */
export const allowed: Record<Expected, Record<100 | 300 | 1000 | 4000, [number, number]>> = {
  normal: { 100: [0.64, 0.73], 300: [0.65, 0.72], 1000: [0.635, 0.725], 4000: [0.65, 0.71] },
  // Uniform over one step, ± step/√12 holds 1/√3 of it.
  rectangular: { 100: [0.53, 0.62], 300: [0.545, 0.615], 1000: [0.53, 0.63], 4000: [0.55, 0.61] },
  // Where noise and steps are of one size.
  between: { 100: [0.57, 0.7], 300: [0.56, 0.71], 1000: [0.54, 0.735], 4000: [0.55, 0.725] },
};

/** One kind of result whose ± is held against simulated runs of known truth. */
export interface TruthCase {
  title: string;
  expected: Expected;
  /** True of one that takes long: `npm test` leaves it to `npm run bench truth`. */
  slow?: true;
  /** True of one that takes rather long: in `npm test` the first 100 repetitions decide for it within wider limits, which tell a ± that is a third too small. */
  costly?: true;
  /** Repetition number `i`, the same every time. */
  trial(i: number): { quantity: Quantity; truth: number };
}

/** In how many of the repetitions from one number up to another value ± half width holds the truth. */
function heldIn({ trial }: TruthCase, from: number, to: number): number {
  let inside = 0;
  for (let i = from; i < to; i++) {
    const { quantity, truth } = trial(i);
    if (Math.abs(quantity.value - truth) <= (halfWidth(quantity) ?? 0)) inside++;
  }
  return inside;
}

/** Share of repetitions in which value ± half width holds the truth. */
export const coverageOfCase = (one: TruthCase, repetitions: number): number =>
  heldIn(one, 0, repetitions) / repetitions;

/**
 * As many repetitions as it takes to decide: what lies within narrow limits after 100 or 300 is not followed further, and 1000 decide
 * about the rest. A ± that is a fifth too small holds the truth in 58 % of cases, and gets through in about one case of eight; all
 * repetitions are in `npm run bench truth`.
 * @returns the share, and what it had to be within
 */
export function decidedCoverage(one: TruthCase): { share: number; low: number; high: number } {
  let inside = 0;
  let done = 0;
  for (const repetitions of [100, 300, 1000] as const) {
    inside += heldIn(one, done, repetitions);
    done = repetitions;
    const wider = one.costly === true && !isThorough && repetitions === 100 ? 0.05 : 0;
    const [low, high] = [
      allowed[one.expected][repetitions][0] - wider,
      allowed[one.expected][repetitions][1] + wider,
    ];
    const share = inside / repetitions;
    if ((share >= low && share <= high) || repetitions === 1000) return { share, low, high };
  }
  throw new Error('1000 repetitions decide');
}
