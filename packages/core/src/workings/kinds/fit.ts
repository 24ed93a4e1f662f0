import { type RelationKey, relationKeys, relationOf } from '../../fitting/relations';
import { exactly } from '../../results/quantity';
import { axisField, choiceField, flagField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { type Curve } from '../outcome';
import { fitInRegion, parameterResult } from './fitting';

const curvePoints = 240;

export const fit = defineKind({
  kind: 'fit',
  title: 'fit',
  yields: 'results',
  offered: 'region',
  offers: relationKeys.map((relation) => ({
    title: relationOf(relation).title,
    preset: { relation },
  })),
  fields: {
    relation: choiceField<RelationKey>(
      'Relation',
      relationKeys.map((key) => ({
        key,
        title: `${relationOf(key).title}: ${relationOf(key).formula}`,
      })),
    ),
    of: seriesField(),
    against: axisField(),
    region: regionField(),
    showResiduals: flagField('Show residuals'),
  },
  sentence: ({ relation, of, against }, nameOf) =>
    `${relationOf(relation).title} through ${nameOf(of)}${against === 't' ? '' : ` against ${nameOf(against)}`}`,
  evaluate(entry, context) {
    const relation = relationOf(entry.relation);
    const fitted = fitInRegion(relation, entry, context);
    const { fit: found, names, selection, series, notes } = fitted;
    const { x } = selection;
    const uncertainties = found.standardUncertainties;
    const spreadOfSd = found.residualStandardDeviation / Math.sqrt(2 * found.degreesOfFreedom);
    return {
      kind: 'results',
      results: [
        ...names.map((_, i) => parameterResult(fitted, i)),
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
        relation: relation.key,
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
  },
});

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
