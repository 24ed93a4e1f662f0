import { line as straightLine } from '../../fitting/models/line';
import { axisField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { fitInRegion, parameterResult } from './fitting';

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
    return { kind: 'results', results: [parameterResult(fitted, 0)], notes: fitted.notes, fitted: null };
  },
});
