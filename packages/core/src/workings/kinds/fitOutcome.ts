import { type FittedSelection, parameterResult } from './fitting';
import { exactly } from '../../results/quantity';
import { type SharedEffect } from '../../series/series';
import { type Curve, type Outcome } from '../outcome';

const curvePoints = 240;

/** What a fit says and draws, whatever its relation. @param further what else moves its values together, such as constants */
export function fitOutcome(
  relation: string,
  fitted: FittedSelection,
  further: readonly SharedEffect[] = [],
): Outcome {
  const { fit: found, names, selection, series, notes } = fitted;
  const { x } = selection;
  const uncertainties = found.standardUncertainties;
  const degrees = Math.min(found.degreesOfFreedom, Math.max(found.count - names.length, 1));
  const spreadOfSd = found.residualStandardDeviation / Math.sqrt(2 * degrees);
  return {
    kind: 'results',
    results: [
      ...names.map((_, i) => parameterResult(fitted, i, further)),
      {
        key: 'residualSd',
        name: 'residual sd',
        quantity: exactly(found.residualStandardDeviation, series.unit),
        roundTo: spreadOfSd,
        main: false,
      },
      {
        key: 'rSquared',
        name: 'R²',
        quantity: exactly(found.rSquared, []),
        // Two digits of what is missing to one, so that 0.999 96 and 0.999 61 can be told apart.
        roundTo: Math.max(1 - found.rSquared, 1e-9),
        main: false,
      },
    ],
    notes,
    fitted: {
      relation,
      curve: curveOf(x, found.valueAt),
      residuals: () => ({ x, y: found.residuals() }),
      correlations: found.covariance.map((row, i) =>
        row.map((value, j) => value / (uncertainties[i] * uncertainties[j])),
      ),
      count: found.count,
      parameters: found.parameters,
      unit: series.unit,
    },
  };
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
