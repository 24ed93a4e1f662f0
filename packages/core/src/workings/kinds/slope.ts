import { line as straightLine } from '../../fitting/models/line';
import { type LineKind } from '../kind';
import { type SlopeLine } from '../lines';
import { missingNote } from '../selection';
import { fitInRegion } from './fitting';

/** The slope of the least-squares line through the readings of a region. */
export const slope: LineKind<SlopeLine> = {
  kind: 'slope',
  sentence: ({ of, against }, nameOf) =>
    against === 't' ? `slope of ${nameOf(of)}` : `slope of ${nameOf(of)} against ${nameOf(against)}`,
  evaluate(line, context) {
    const { fit, names, selection } = fitInRegion(straightLine, line, context);
    return {
      kind: 'results',
      results: [
        {
          key: 'slope',
          name: 'slope',
          value: fit.parameters[0],
          standardUncertainty: fit.standardUncertainties[0],
          roundTo: null,
          unit: names[0].unit,
          main: true,
        },
      ],
      notes: missingNote(selection.missing, fit.count),
      fitted: null,
    };
  },
};
