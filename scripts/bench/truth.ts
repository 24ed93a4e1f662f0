import { allowed, coverageOfCase } from '../../packages/core/src/testing/truth/case';
import { truthCases } from '../../packages/core/src/testing/truth';
import { type Figure } from './figures';

const repetitions = 4000;
const shown = (share: number) => `${(100 * share).toFixed(1)} %`;

/**
 * How often ± of every kind of result holds the truth, in 4000 simulated runs each with seeds that are fixed beforehand; a line a kind
 * as soon as it is known.
 */
export function* truth(): Generator<Figure> {
  for (const one of truthCases) {
    const share = coverageOfCase(one, repetitions);
    const [low, high] = allowed[one.expected].more;
    const isWithin = share >= low && share <= high;
    yield {
      what: one.title,
      measured: `${shown(share)}${isWithin ? '' : ' — OUTSIDE'}`,
      budget: `${shown(low)} to ${shown(high)}`,
    };
  }
}
