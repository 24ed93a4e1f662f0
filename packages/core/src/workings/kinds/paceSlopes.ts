import { line as straightLine } from '../../fitting/models/line';
import { fitRelation } from '../../fitting/fit';
import { segmentsOf } from '../../pace/target';
import { Refusal, orRefusal } from '../../refusal';
import { exactly } from '../../results/quantity';
import { conversionFactor } from '../../units/conversion';
import { divideUnits } from '../../units/unit';
import { seriesField } from '../fields';
import { defineKind } from '../kind';
import { type NamedResult } from '../outcome';
import { select } from '../selection';
import { paceFor } from './pace';

/** The slope of a run on each straight part of its line, beside what it was to be. */
export const paceSlopes = defineKind({
  kind: 'paceSlopes',
  title: 'slopes along the line',
  yields: 'results',
  offered: 'nowhere',
  offers: [],
  fields: { of: seriesField() },
  sentence: ({ of }, nameOf) => `slopes of ${nameOf(of)} along the line`,
  evaluate({ of }, context) {
    const series = context.series(of);
    const pace = paceFor(of, series, context);
    const factor = conversionFactor(pace.unit, series.unit);
    const unit = divideUnits(series.unit, series.timeUnit);
    const results = segmentsOf(pace.points).flatMap(({ from, to, slope }, i): NamedResult[] => {
      const found = orRefusal(() => {
        const selection = select(context, series, 't', { along: 't', start: from, end: to });
        return fitRelation(straightLine, selection, selection, { finite: true, moving: context.moving });
      });
      if (found instanceof Refusal) return [];
      return [
        {
          key: `own${i + 1}`,
          name: `slope ${i + 1}`,
          quantity: {
            value: found.parameters[0],
            unit,
            standardUncertainty: found.standardUncertainties[0],
            degreesOfFreedom: found.degreesOfFreedom,
            influences: () => found.influencesOn(0),
          },
          roundTo: null,
          main: i === 0,
        },
        {
          key: `target${i + 1}`,
          name: `its target`,
          quantity: exactly(factor * slope, unit),
          roundTo: null,
          main: false,
        },
      ];
    });
    if (results.length === 0) throw new Refusal('The run does not reach over any straight part of its line.');
    return { kind: 'results', results, notes: [], fitted: null };
  },
});
