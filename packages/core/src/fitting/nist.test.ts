import boxbod from '../../reference/boxbod.json';
import norris from '../../reference/norris.json';
import pontius from '../../reference/pontius.json';
import rat42 from '../../reference/rat42.json';
import thurber from '../../reference/thurber.json';
import { readingsNoise } from '../series/noise';
import { parameterCovariance, transformCovariance } from './covariance';
import { type ModelFunction, leastSquares } from './levenbergMarquardt';
import { solvePolynomial } from './models/polynomial';

// Source of data and certified values: NIST Statistical Reference Datasets (StRD), linear and nonlinear regression.

/** Decimal digits that agree: −log₁₀ of the relative error (the StRD's own measure). */
const digits = (value: number, certified: number) =>
  value === certified ? 16 : -Math.log10(Math.abs(value - certified) / Math.abs(certified));

const wholeSeries = (y: Float64Array) => ({
  seriesLength: y.length,
  indices: Int32Array.from(y.keys()),
  noise: readingsNoise(y),
});

describe.each([
  { set: norris, degree: 1 },
  { set: pontius, degree: 2 },
])('$set.name, linear', ({ set, degree }) => {
  const y = Float64Array.from(set.y);
  const solved = solvePolynomial({ x: Float64Array.from(set.x), y }, degree);
  const own = parameterCovariance(solved.solution, wholeSeries(y));
  const covariance = transformCovariance(own?.matrix ?? [], solved.transformation);

  test('parameters agree with the certified values to 9 digits', () => {
    set.certified.parameters.forEach((certified, i) =>
      expect(digits(solved.parameters[i], certified)).toBeGreaterThan(9),
    );
  });
  test('standard deviations agree to 9 digits', () => {
    set.certified.standardDeviations.forEach((certified, i) =>
      expect(digits(Math.sqrt(covariance[i][i]), certified)).toBeGreaterThan(9),
    );
  });
});

type Formula = (b: readonly number[], x: number) => [value: number, gradient: number[]];

const formulas: Record<string, Formula> = {
  BoxBOD: ([b1, b2], x) => {
    const decay = Math.exp(-b2 * x);
    return [b1 * (1 - decay), [1 - decay, b1 * x * decay]];
  },
  Rat42: ([b1, b2, b3], x) => {
    const growth = Math.exp(b2 - b3 * x);
    const slope = (b1 * growth) / (1 + growth) ** 2;
    return [b1 / (1 + growth), [1 / (1 + growth), -slope, slope * x]];
  },
  Thurber: ([b1, b2, b3, b4, b5, b6, b7], x) => {
    const above = b1 + x * (b2 + x * (b3 + x * b4));
    const below = 1 + x * (b5 + x * (b6 + x * b7));
    const f = above / below;
    return [
      f,
      [
        1 / below,
        x / below,
        x ** 2 / below,
        x ** 3 / below,
        (-f * x) / below,
        (-f * x ** 2) / below,
        (-f * x ** 3) / below,
      ],
    ];
  },
};

describe.each([boxbod, rat42, thurber])('$name, nonlinear', (set) => {
  const x = set.x;
  const y = Float64Array.from(set.y);
  const model: ModelFunction = (parameters, out, jacobian) =>
    x.forEach((at, i) => {
      const [value, gradient] = formulas[set.name](parameters, at);
      out[i] = value;
      gradient.forEach((partial, k) => {
        if (jacobian !== null) jacobian[k][i] = partial;
      });
    });

  test.each([
    ['far', set.start1],
    ['near', set.start2],
  ])('from the %s start, parameters and standard deviations agree to 6 digits', (_, start) => {
    const solution = leastSquares(model, y, start);
    const covariance = parameterCovariance(solution, wholeSeries(y));
    set.certified.parameters.forEach((certified, i) => {
      expect(digits(solution.parameters[i], certified)).toBeGreaterThan(6);
      expect(
        digits(Math.sqrt(covariance?.matrix[i][i] ?? NaN), set.certified.standardDeviations[i]),
      ).toBeGreaterThan(6);
    });
    expect(digits(solution.residualSumOfSquares, set.certified.residualSumOfSquares)).toBeGreaterThan(8);
  });
});
