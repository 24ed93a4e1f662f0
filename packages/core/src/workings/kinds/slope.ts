import { square } from '../../elementary';
import { line as straightLine } from '../../fitting/models/line';
import { describe } from '../../statistics/describe';
import { multiplyUnits, powerOfUnit } from '../../units/unit';
import { axisField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { type Working, noted } from '../outcome';
import { meanOfSymbol, symbolOf, texPart, withWorkings } from '../working';
import { type FittedSelection, fitInRegion, parameterResult } from './fitting';

/** The sums of the least-squares line. */
function workingOfSlope({ selection: { x, y }, series, against, fit }: FittedSelection): Working {
  const middle = { x: describe(x).mean, y: describe(y).mean };
  let [xx, xy] = [0, 0];
  for (let i = 0; i < x.length; i++) {
    xx += square(x[i] - middle.x);
    xy += (x[i] - middle.x) * (y[i] - middle.y);
  }
  const off = (symbol: string) => `\\left({${symbolOf(symbol)}}_i-${meanOfSymbol(symbol)}\\right)`;
  return {
    formula: `b = \\frac{\\sum ${off(against.symbol)}${off(series.symbol)}}{\\sum ${off(against.symbol)}^2}`,
    putIn: `= \\frac{${texPart({ value: xy, unit: multiplyUnits(against.unit, series.unit) })}}{${texPart({ value: xx, unit: powerOfUnit(against.unit, 2) })}}`,
    ...(fit.correctedShift > 0
      ? { says: `From this, what the noise of ${against.symbol} does to a slope is taken off.` }
      : {}),
  };
}

/** The slope of the least-squares line through the readings of a region. */
export const slope = defineKind({
  kind: 'slope',
  title: 'slope',
  yields: 'results',
  offered: 'region',
  offers: [{ title: 'slope', preset: {} }],
  fields: { of: seriesField(), against: axisField(), region: regionField() },
  sentence: ({ of, against }, nameOf) =>
    against === 't' ? `slope of ${nameOf(of)}` : `slope of ${nameOf(of)} against ${nameOf(against)}`,
  evaluate(entry, context) {
    const fitted = fitInRegion(straightLine, entry, context);
    return {
      kind: 'results',
      results: withWorkings([parameterResult(fitted, 0)], { slope: () => workingOfSlope(fitted) }),
      ...noted(fitted.notes, fitted.atRest),
      fitted: null,
    };
  },
});
