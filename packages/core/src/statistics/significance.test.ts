import { chanceOfGain, coverageFactor } from './significance';

// Source: JCGM 100:2008 (GUM), table G.2, column p = 68.27 %.
test.each([
  [1, 1.84],
  [2, 1.32],
  [3, 1.2],
  [4, 1.14],
  [5, 1.11],
  [6, 1.09],
  [8, 1.07],
  [10, 1.05],
  [20, 1.03],
  [50, 1.01],
])('with %p degrees of freedom the factor of 68.27 %% is %p', (nu, factor) =>
  expect(coverageFactor(nu)).toBeCloseTo(factor, 2),
);

// Source: NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.3, upper critical values of the F distribution, 5 %:
// F(1, 10) = 4.965, F(3, 20) = 3.098.
test.each([
  [1, 10, 4.965],
  [3, 20, 3.098],
])('F(%p, %p) = %p is exceeded by chance one time in twenty', (added, nu, critical) =>
  expect(chanceOfGain(1 + (critical * added) / nu, 1, added, nu)).toBeCloseTo(0.05, 3),
);
