import { pow } from '../../elementary';
import { Refusal } from '../../refusal';
import { linearLeastSquares } from '../linear';
import { type FitPoints, type RelationSolution } from '../relation';
import { centredOn, directSums } from './polynomialSums';

/**
 * A polynomial through points, on an abscissa centred at its mean and scaled by its reach. Named parameters are the
 * coefficients of powers of x, ascending; the curve itself is reckoned on the centred abscissa.
 * @throws Refusal where the points lie at too few places
 */
export function solvePolynomial({ x, y }: FitPoints, degree: number): RelationSolution {
  const centred = centredOn(x);
  const { middle, scale } = centred;
  const because = `The region needs readings at ${degree + 1} or more different places along the axis.`;
  if (!(scale > 0)) throw new Refusal(because);
  const solution = linearLeastSquares(
    (first, columns) => {
      columns[0].fill(1);
      for (let power = 1; power <= degree; power++)
        fillPower(columns[power], columns[power - 1], { x, first, middle, scale });
    },
    degree + 1,
    y,
    because,
    degree === 1 || degree === 2 ? directSums(x, y, degree, centred) : null,
  );
  // ((x − m)/s)^k expanded in powers of x: coefficient of x^j is C(k, j) (−m)^(k−j) / s^k.
  const transformation = Array.from({ length: degree + 1 }, (_, j) =>
    Array.from({ length: degree + 1 }, (_unused, k) =>
      k < j ? 0 : (binomial(k, j) * pow(-middle, k - j)) / pow(scale, k),
    ),
  );
  return {
    solution,
    transformation,
    named: (own) => transformation.map((row) => row.reduce((total, value, k) => total + value * own[k], 0)),
    value(own, place) {
      const u = (place - middle) / scale;
      let sum = own[degree];
      for (let k = degree - 1; k >= 0; k--) sum = sum * u + own[k];
      return sum;
    },
    slope: (own, place) => slopeAt(own, degree, (place - middle) / scale) / scale,
    gradient: (_own, place) => powersOf((place - middle) / scale, degree),
  };
}

function slopeAt(own: readonly number[], degree: number, u: number): number {
  let sum = degree * own[degree];
  for (let k = degree - 1; k >= 1; k--) sum = sum * u + k * own[k];
  return sum;
}

/** 1, u, u² and so on. */
function powersOf(u: number, degree: number): number[] {
  const row = [1];
  for (let k = 1; k <= degree; k++) row.push(row[k - 1] * u);
  return row;
}

interface Powers {
  x: Float64Array;
  first: number;
  middle: number;
  scale: number;
}

/** The next power of where the points lie, from the one below. */
export function fillPower(
  column: Float64Array,
  lower: Float64Array,
  { x, first, middle, scale }: Powers,
): void {
  for (let i = 0; i < column.length; i++) column[i] = lower[i] * ((x[first + i] - middle) / scale);
}

function binomial(n: number, k: number): number {
  let value = 1;
  for (let i = 1; i <= k; i++) value = (value * (n - k + i)) / i;
  return value;
}

/** The same solution under other named parameters, each a multiple of one coefficient. */
export function renamed(
  solved: RelationSolution,
  order: readonly [power: number, factor: number][],
): RelationSolution {
  return {
    ...solved,
    named(own) {
      const coefficients = solved.named(own);
      return order.map(([power, factor]) => factor * coefficients[power]);
    },
    transformation: order.map(([power, factor]) =>
      solved.transformation[power].map((value) => factor * value),
    ),
  };
}
