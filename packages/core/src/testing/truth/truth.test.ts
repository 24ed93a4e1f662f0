import { allowed, coverageOfCase } from './case';
import { truthCases } from './index';

const repetitions = 1000;

// The truth is that of the simulation; 68.27 % is the normal distribution's share of one standard deviation.
test.each(truthCases.filter(({ slow }) => slow !== true).map((one) => [one.title, one] as const))(
  '± of %s covers what it says',
  (_, one) => {
    const [low, high] = allowed[one.expected].thousand;
    const share = coverageOfCase(one, repetitions);
    expect(share).toBeGreaterThanOrEqual(low);
    expect(share).toBeLessThanOrEqual(high);
  },
);
