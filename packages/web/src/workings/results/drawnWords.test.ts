import { drawnWords } from './drawnWords';

const result = { value: 9.806, halfWidth: 0.016, unit: [] };
const drawn = { count: 200_000, mean: 9.8061, standardDeviation: 0.0161, low: 9.79, high: 9.822, lost: 0 };

test('draws that say the same confirm first order; others give their interval, and say what has no value', () => {
  expect(drawnWords(result, drawn)).toBe(
    '200,000 draws have the mean 9.806; the middle 68 % of them lie between 9.790 and 9.822. ± says from 9.790 to 9.822. Both agree: first order is good enough here.',
  );
  expect(drawnWords(result, { ...drawn, mean: 9.83, high: 9.86 })).toMatch(
    'within these uncertainties the formula is not straight',
  );
  expect(drawnWords(result, { ...drawn, lost: 2000 })).toMatch('0.99 % of the draws have no value');
});
