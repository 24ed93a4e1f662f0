import { intervalUnit } from '../../units/temperature';
import { type FittedSelection, parameterResult } from './fitting';
import { exactly } from '../../results/quantity';
import { runsTest } from '../../statistics/runsTest';
import { coverageFactor } from '../../statistics/significance';
import { type SharedEffect } from '../../series/series';
import { type Letters } from '../../fitting/relation';
import { type Curve, type Outcome, noted } from '../outcome';
import { type Part } from '../working';
import { workingOfFit } from '../workingOfFit';

const curvePoints = 240;

/** What a fit says and draws, whatever its relation. @param further what else moves its values together, such as constants */
export function fitOutcome(
  relation: string,
  fitted: FittedSelection,
  {
    letters,
    further = [],
    constants = {},
  }: {
    letters: Letters;
    further?: readonly SharedEffect[];
    constants?: Readonly<Record<string, Part>>;
  },
): Outcome {
  const { fit: found, names, selection, series, notes, atRest } = fitted;
  const { x } = selection;
  const uncertainties = found.standardUncertainties;
  const degrees = Math.min(found.degreesOfFreedom, Math.max(found.count - names.length, 1));
  const parameters = names.map((_, i) => parameterResult(fitted, i, further));
  const spreadOfSd = found.residualStandardDeviation / Math.sqrt(2 * degrees);
  return {
    kind: 'results',
    results: [
      ...parameters.map((result, i) => ({
        ...result,
        working: () => workingOfFit(letters, fitted, parameters, i, constants),
      })),
      {
        key: 'residualSd',
        name: 'residual sd',
        quantity: exactly(found.residualStandardDeviation, intervalUnit(series.unit)),
        roundTo: spreadOfSd,
        main: false,
      },
      ...(found.reducedChiSquared === undefined
        ? []
        : [
            {
              key: 'chiSquared',
              name: 'χ² per degree of freedom',
              quantity: exactly(found.reducedChiSquared, []),
              // χ² has the variance 2 ν (any textbook of statistics).
              roundTo: Math.sqrt(2 / degrees),
              main: false,
            },
          ]),
      {
        key: 'rSquared',
        name: 'R²',
        quantity: exactly(found.rSquared, []),
        // Two digits of what is missing to one, so that 0.999 96 and 0.999 61 can be told apart.
        roundTo: Math.max(1 - found.rSquared, 1e-5),
        main: false,
      },
    ],
    ...noted(notes, atRest === null ? null : [...atRest, ...patternNote(fitted)]),
    fitted: {
      relation,
      curve: curveOf(x, found.valueAt),
      residuals: () => ({ x, y: found.residuals() }),
      correlations: found.covariance.map((row, i) =>
        row.map((value, j) =>
          value === 0 ? Number(i === j) : value / (uncertainties[i] * uncertainties[j]),
        ),
      ),
      count: found.count,
      parameters: found.parameters,
      unit: series.unit,
      valueAt: found.valueAt,
      bandAt: (place, share) =>
        coverageFactor(degrees, share) *
        Math.hypot(found.uncertaintyAt(place), found.residualStandardDeviation),
      curveBandAt: (place, share) =>
        coverageFactor(found.degreesOfFreedom, share) * found.uncertaintyAt(place),
    },
  };
}

/** Chance makes as few runs of one sign once in 740 times (normal distribution). */
const clearly = -3;

/** Says where neighbouring residuals go together, which they do where a relation misses something. */
function patternNote({ fit, selection, series }: FittedSelection): string[] {
  // Neighbours in a series that was derived share their noise, so theirs go together whatever the relation.
  if (series.noise?.independent === false) return [];
  const { x } = selection;
  const residuals = fit.residuals();
  if (!(runsTest(inOrderOf(x, residuals)) < clearly)) return [];
  return [
    'Neighbouring residuals are more alike than chance allows: the readings show something that this relation does not describe. Look at the residuals, or try another relation.',
  ];
}

/** Values in the order of their places. */
function inOrderOf(x: Float64Array, values: Float64Array): Float64Array {
  let i = 1;
  while (i < x.length && !(x[i] < x[i - 1])) i++;
  if (i >= x.length) return values;
  return Float64Array.from(
    Int32Array.from(x, (_, place) => place).sort((a, b) => x[a] - x[b]),
    (place) => values[place],
  );
}

function curveOf(x: Float64Array, valueAt: (x: number) => number): Curve {
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < x.length; i++) {
    if (x[i] < low) low = x[i];
    if (x[i] > high) high = x[i];
  }
  const curve: Curve = { x: new Float64Array(curvePoints), y: new Float64Array(curvePoints) };
  for (let i = 0; i < curvePoints; i++) {
    curve.x[i] = low + ((high - low) * i) / (curvePoints - 1);
    curve.y[i] = valueAt(curve.x[i]);
  }
  return curve;
}
