import { decidedCoverage } from './case';
import { truthCases } from './index';

// The truth is that of the simulation; 68.27 % is the normal distribution's share of one standard deviation.
test.each(truthCases.filter(({ slow }) => slow !== true).map((one) => [one.title, one] as const))(
  '± of %s covers what it says',
  (_, one) => {
    const { share, low, high } = decidedCoverage(one);
    expect(share).toBeGreaterThanOrEqual(low);
    expect(share).toBeLessThanOrEqual(high);
  },
);
