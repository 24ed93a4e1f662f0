import { normalRandom } from '../../random';
import { solvePolynomial } from './polynomial';

// Many readings are summed directly. Truths here: the readings' own polynomial, the same design solved by reflections
// (Golub and Van Loan, Matrix Computations, 4th edition, section 5.3), and the straight line's closed form
// (Draper and Smith, Applied Regression Analysis, 3rd edition, section 1.2) in compensated sums.

const many = 5000;

/** All rows at once by Householder reflections. */
function reflected(x: Float64Array, y: Float64Array, degree: number, middle: number, scale: number) {
  const columns = Array.from({ length: degree + 1 }, (_, power) =>
    Array.from(x, (at) => ((at - middle) / scale) ** power),
  );
  const rows = y.length;
  const rest = Array.from(y);
  const r: number[][] = [];
  const right: number[] = [];
  for (let k = 0; k <= degree; k++) {
    const column = columns[k];
    const reach = Math.hypot(...column.slice(k));
    const alpha = column[k] > 0 ? -reach : reach;
    const v = column.map((value, i) => (i < k ? 0 : i === k ? value - alpha : value));
    const length = v.reduce((sum, value) => sum + value * value, 0);
    const reflect = (target: number[]) => {
      const along = (2 * v.reduce((sum, value, i) => sum + value * target[i], 0)) / length;
      for (let i = k; i < rows; i++) target[i] -= along * v[i];
    };
    columns.forEach(reflect);
    reflect(rest);
    r.push(columns.map((each) => each[k]));
    right.push(rest[k]);
  }
  const parameters: number[] = [];
  for (let k = degree; k >= 0; k--) {
    let value = right[k];
    for (let j = k + 1; j <= degree; j++) value -= r[k][j] * parameters[j];
    parameters[k] = value / r[k][k];
  }
  const leftOver = rest.slice(degree + 1).reduce((sum, value) => sum + value * value, 0);
  return { parameters, leftOver };
}

/** Σ by Neumaier's compensated summation. */
function sumOf(count: number, term: (i: number) => number): number {
  let [sum, lost] = [0, 0];
  for (let i = 0; i < count; i++) {
    const value = term(i);
    const next = sum + value;
    lost += Math.abs(sum) >= Math.abs(value) ? sum - next + value : value - next + sum;
    sum = next;
  }
  return sum + lost;
}

const places = (begin: number, interval: number) =>
  Float64Array.from({ length: many }, (_, i) => begin + i * interval);

describe.each([1, 2])('a polynomial of degree %i through many readings', (degree) => {
  test.each([
    ['near the origin', 0, 0.02, 0],
    ['a day of seconds since 1970', 1.7e9, 0.02, 0],
    ['ordinates far from nought', 3, 0.001, 1e6],
  ])('%s: the reflections’ parameters and left-over', (_, begin, interval, offset) => {
    const normal = normalRandom(11);
    const x = places(begin, interval);
    const y = x.map((at) => offset + 0.4 * (at - begin) - 0.03 * (at - begin) ** 2 + 0.002 * normal());
    const { solution } = solvePolynomial({ x, y }, degree);
    const middle = begin + sumOf(many, (i) => x[i] - begin) / many;
    const scale = Math.max(x[many - 1] - middle, middle - begin);
    const { parameters, leftOver } = reflected(x, y, degree, middle, scale);
    const size = Math.max(...y.map(Math.abs));
    parameters.forEach((value, k) =>
      expect(Math.abs(solution.parameters[k] - value)).toBeLessThan(1e-12 * size),
    );
    expect(Math.abs(solution.residualSumOfSquares / leftOver - 1)).toBeLessThan(
      1e-9 + (1e-13 * size) / 0.002,
    );
  });

  test('exact readings leave nothing over but the rounding of a number', () => {
    const x = places(0, 0.5);
    const y = x.map((at) => 3 + 2 * at + (degree === 2 ? 0.25 * at * at : 0));
    const solved = solvePolynomial({ x, y }, degree);
    const size = Math.max(...y);
    expect(Math.sqrt(solved.solution.residualSumOfSquares / many)).toBeLessThan(1e-14 * size);
    for (const at of [0, 1000, 2499.5])
      expect(
        Math.abs(
          solved.value(solved.solution.parameters, at) - (3 + 2 * at + (degree === 2 ? 0.25 * at * at : 0)),
        ),
      ).toBeLessThan(1e-14 * size);
  });

  test('residuals and curve belong together', () => {
    const normal = normalRandom(3);
    const x = places(-4, 0.01);
    const y = x.map((at) => Math.sin(at) + 0.1 * normal());
    const solved = solvePolynomial({ x, y }, degree);
    const residuals = solved.solution.residuals();
    expect(sumOf(many, (i) => residuals[i] ** 2)).toBeCloseTo(solved.solution.residualSumOfSquares, 9);
    for (const i of [0, 777, many - 1])
      expect(y[i] - solved.value(solved.solution.parameters, x[i])).toBeCloseTo(residuals[i], 12);
  });
});

test('the line’s closed form, places in any order and met twice', () => {
  const normal = normalRandom(29);
  const x = Float64Array.from({ length: many }, () => Math.round(40 * normal()) / 8);
  const y = x.map((at) => 7 - 2.5 * at + 0.3 * normal());
  const [meanX, meanY] = [sumOf(many, (i) => x[i]) / many, sumOf(many, (i) => y[i]) / many];
  const sxx = sumOf(many, (i) => (x[i] - meanX) ** 2);
  const slope = sumOf(many, (i) => (x[i] - meanX) * (y[i] - meanY)) / sxx;
  const solved = solvePolynomial({ x, y }, 1);
  const [intercept, steepness] = solved.named(solved.solution.parameters);
  expect(steepness).toBeCloseTo(slope, 12);
  expect(intercept).toBeCloseTo(meanY - slope * meanX, 12);
  expect(solved.solution.residualSumOfSquares).toBeCloseTo(
    sumOf(many, (i) => (y[i] - meanY - slope * (x[i] - meanX)) ** 2),
    8,
  );
});

test('two places only: a line, but no parabola', () => {
  const x = Float64Array.from({ length: many }, (_, i) => i % 2);
  const y = x.map((at, i) => at + (i % 4 < 2 ? 0.1 : -0.1));
  expect(solvePolynomial({ x, y }, 1).solution.parameters).toHaveLength(2);
  expect(() => solvePolynomial({ x, y }, 2)).toThrow('3 or more different places');
});

test('a NaN among many readings gives no number', () => {
  const x = places(0, 1);
  const y = x.map((at) => (at === 2000 ? Number.NaN : at));
  const { solution } = solvePolynomial({ x, y }, 1);
  expect(solution.parameters.every(Number.isNaN)).toBe(true);
});
