import { relationOf } from '../../fitting/relations';
import { type LineKind } from '../kind';
import { type FitLine } from '../lines';
import { type Curve } from '../outcome';
import { missingNote } from '../selection';
import { fitInRegion } from './fitting';

const curvePoints = 240;

export const fit: LineKind<FitLine> = {
  kind: 'fit',
  sentence: ({ relation, of, against }, nameOf) =>
    `${relationOf(relation).title} through ${nameOf(of)}${against === 't' ? '' : ` against ${nameOf(against)}`}`,
  evaluate(line, context) {
    const relation = relationOf(line.relation);
    const { fit: found, names, selection, series } = fitInRegion(relation, line, context);
    const { x } = selection;
    let low = Infinity;
    let high = -Infinity;
    for (const value of x) {
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
    const curve: Curve = { x: new Float64Array(curvePoints), y: new Float64Array(curvePoints) };
    for (let i = 0; i < curvePoints; i++) {
      curve.x[i] = low + ((high - low) * i) / (curvePoints - 1);
      curve.y[i] = relation.value(found.parameters, curve.x[i]);
    }
    const uncertainties = found.standardUncertainties;
    const spreadOfSd = found.residualStandardDeviation / Math.sqrt(2 * found.degreesOfFreedom);
    return {
      kind: 'results',
      results: [
        ...names.map(({ key, name, unit, main }, i) => ({
          key,
          name,
          value: found.parameters[i],
          standardUncertainty: uncertainties[i],
          roundTo: null,
          unit,
          main,
        })),
        {
          key: 'residualSd',
          name: 'residual sd',
          value: found.residualStandardDeviation,
          standardUncertainty: null,
          roundTo: spreadOfSd,
          unit: series.unit,
          main: false,
        },
        {
          key: 'rSquared',
          name: 'R²',
          value: found.rSquared,
          standardUncertainty: null,
          // Two digits of what is missing to one, so that 0.999 96 and 0.999 61 can be told apart.
          roundTo: Math.max(1 - found.rSquared, 1e-9),
          unit: [],
          main: false,
        },
      ],
      notes: missingNote(selection.missing, found.count),
      fitted: {
        curve,
        residuals: { x, y: found.residuals },
        correlations: found.covariance.map((row, i) =>
          row.map((value, j) => value / (uncertainties[i] * uncertainties[j])),
        ),
        count: found.count,
      },
    };
  },
};
