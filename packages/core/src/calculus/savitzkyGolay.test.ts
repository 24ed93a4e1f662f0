import { localPolynomialWeights } from './localPolynomial';

// Source: Savitzky and Golay, Anal. Chem. 36 (1964) 1627, tables I to VII, as corrected by Steinier, Termonia and Deltour,
// Anal. Chem. 44 (1972) 1906.
const published: [string, degree: number, order: number, weights: number[], divisor: number][] = [
  ['smoothing, quadratic, 5', 2, 0, [-3, 12, 17, 12, -3], 35],
  ['smoothing, quadratic, 7', 2, 0, [-2, 3, 6, 7, 6, 3, -2], 21],
  ['smoothing, quadratic, 9', 2, 0, [-21, 14, 39, 54, 59, 54, 39, 14, -21], 231],
  ['first derivative, quadratic, 5', 2, 1, [-2, -1, 0, 1, 2], 10],
  ['first derivative, quadratic, 9', 2, 1, [-4, -3, -2, -1, 0, 1, 2, 3, 4], 60],
  ['first derivative, cubic, 5', 4, 1, [1, -8, 0, 8, -1], 12],
  ['first derivative, cubic, 7', 3, 1, [22, -67, -58, 0, 58, 67, -22], 252],
  ['second derivative, quadratic, 5', 2, 2, [2, -1, -2, -1, 2], 7],
  ['second derivative, quadratic, 7', 2, 2, [5, 0, -3, -4, -3, 0, 5], 42],
];

test.each(published)('the published weights come out: %s', (_, degree, order, weights, divisor) => {
  const times = weights.map((_unused, i) => i);
  const computed = localPolynomialWeights(times, (weights.length - 1) / 2, degree, order);
  weights.forEach((weight, i) => expect(computed[i]).toBeCloseTo(weight / divisor, 13));
});
