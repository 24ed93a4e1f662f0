import { spawnSync } from 'node:child_process';
import { allowed, coverageOfCase } from '../../packages/core/src/testing/truth/case';
import { truthCases } from '../../packages/core/src/testing/truth';
import { type Figure } from './figures';

const repetitions = 4000 as const;
const shown = (share: number) => `${(100 * share).toFixed(1)} %`;

/**
 * How often ± of every kind of result holds the truth, in 4000 simulated runs each with seeds that are fixed beforehand; a line a kind
 * as soon as it is known.
 */
export function* truth(): Generator<Figure> {
  for (const one of truthCases) {
    const share = coverageOfCase(one, repetitions);
    const [low, high] = allowed[one.expected][repetitions];
    const isWithin = share >= low && share <= high;
    yield {
      what: one.title,
      measured: `${shown(share)}${isWithin ? '' : ' — OUTSIDE'}`,
      budget: `${shown(low)} to ${shown(high)}`,
    };
  }
}

/** The unit tests once more, with all the repetitions that their simulations can have. */
export function thoroughTests(): Figure {
  const { status, stderr } = spawnSync(
    'npx',
    ['jest', '--config', 'jest.config.cjs', '--selectProjects', 'unit', '--maxWorkers', '2'],
    { encoding: 'utf8', env: { ...process.env, HEURISTOR_THOROUGH: '1' }, maxBuffer: 2 ** 28 },
  );
  const said = /^Tests: +(.*)$/m.exec(stderr)?.[1] ?? 'no report';
  return {
    what: 'unit tests with all repetitions',
    measured: `${said}${status === 0 ? '' : ' — OUTSIDE'}`,
    budget: 'all pass',
  };
}
