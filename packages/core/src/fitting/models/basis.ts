import { Refusal } from '../../refusal';
import { linearLeastSquares } from '../linear';
import { type FitPoints, type RelationSolution } from '../relation';

/** A function of x that a relation is a multiple of, and its derivative. */
export interface BasisFunction {
  value(x: number): number;
  slope(x: number): number;
}

/**
 * A sum of fixed functions of x, each with a factor, by linear least squares. The solver's factors are those of the functions
 * scaled to the size of one.
 * @param named the named parameters as multiples of the factors: one row a parameter
 * @throws Refusal where the functions cannot be told apart at these places
 */
export function solveBasis(
  { x, y }: FitPoints,
  functions: readonly BasisFunction[],
  named: readonly (readonly number[])[],
): RelationSolution {
  const p = functions.length;
  const scales = functions.map(({ value }) => {
    let most = 0;
    for (let i = 0; i < x.length; i++) most = Math.max(most, Math.abs(value(x[i])));
    return most > 0 && Number.isFinite(most) ? most : 1;
  });
  const solution = linearLeastSquares(
    (first, columns) =>
      functions.forEach(({ value }, k) => {
        const column = columns[k];
        for (let i = 0; i < column.length; i++) column[i] = value(x[first + i]) / scales[k];
      }),
    p,
    y,
    `The region needs readings at ${p} or more different places along the axis.`,
  );
  const transformation = named.map((row) => row.map((value, k) => value / scales[k]));
  const sum = (own: readonly number[], of: (k: number) => number) =>
    own.reduce((total, factor, k) => total + (factor * of(k)) / scales[k], 0);
  return {
    solution,
    transformation,
    named: (own) => transformation.map((row) => row.reduce((total, value, k) => total + value * own[k], 0)),
    value: (own, at) => sum(own, (k) => functions[k].value(at)),
    slope: (own, at) => sum(own, (k) => functions[k].slope(at)),
    gradient: (_own, at) => functions.map(({ value }, k) => value(at) / scales[k]),
  };
}

/**
 * Refuses readings at places where a relation has no value.
 * @param isGood whether it has one there
 * @param where "greater than 0"
 */
export function needPlaces(
  { x }: FitPoints,
  title: string,
  where: string,
  isGood: (x: number) => boolean,
): void {
  let bad = 0;
  for (let i = 0; i < x.length; i++) if (!isGood(x[i])) bad++;
  if (bad > 0)
    throw new Refusal(
      `A ${title} needs places ${where} on the axis; ${bad} of ${x.length} readings lie elsewhere. Leave them out of the region, or move the zero.`,
    );
}

export const isPositive = (x: number): boolean => x > 0;
