import boxbod from '../../reference/boxbod.json';
import norris from '../../reference/norris.json';
import pontius from '../../reference/pontius.json';
import rat42 from '../../reference/rat42.json';
import thurber from '../../reference/thurber.json';
import { independentCovariance, transformCovariance } from './covariance';
import { fitModel } from './fit';
import { type ModelFunction } from './levenbergMarquardt';
import { solvePolynomial } from './models/polynomial';

// Source of data and certified values: NIST Statistical Reference Datasets (StRD), linear and nonlinear regression.

/** Decimal digits that agree: −log₁₀ of the relative error (the StRD's own measure). */
const digits = (value: number, certified: number) =>
  value === certified ? 16 : -Math.log10(Math.abs(value - certified) / Math.abs(certified));

describe.each([
  { set: norris, degree: 1 },
  { set: pontius, degree: 2 },
])('$set.name, linear', ({ set, degree }) => {
  const y = Float64Array.from(set.y);
  const solved = solvePolynomial({ x: Float64Array.from(set.x), y }, degree);
  const variance = solved.solution.residualSumOfSquares / (y.length - degree - 1);
  const covariance = transformCovariance(
    independentCovariance(solved.solution.triangle, variance),
    solved.transformation,
  );
  const parameters = solved.named(solved.solution.parameters);

  test('parameters agree with the certified values to 9 digits', () => {
    set.certified.parameters.forEach((certified, i) =>
      expect(digits(parameters[i], certified)).toBeGreaterThan(9),
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
  const model: ModelFunction = (parameters, first, out, jacobian) => {
    for (let i = 0; i < out.length; i++) {
      const [value, gradient] = formulas[set.name](parameters, x[first + i]);
      out[i] = value;
      gradient.forEach((partial, k) => {
        if (jacobian !== null) jacobian[k][i] = partial;
      });
    }
  };

  test.each([
    ['far', set.start1],
    ['near', set.start2],
  ])('from the %s start, parameters and standard deviations agree to 6 digits', (_, start) => {
    const solution = fitModel(model, y, start);
    set.certified.parameters.forEach((certified, i) => {
      expect(digits(solution.parameters[i], certified)).toBeGreaterThan(6);
      expect(digits(solution.standardUncertainties[i], set.certified.standardDeviations[i])).toBeGreaterThan(
        6,
      );
    });
    expect(digits(solution.residualSumOfSquares, set.certified.residualSumOfSquares)).toBeGreaterThan(8);
  });
});
