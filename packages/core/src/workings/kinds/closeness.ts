import { square } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { closeness as closenessTo } from '../../pace/closeness';
import { exactly } from '../../results/quantity';
import { powerOfUnit } from '../../units/unit';
import { seriesField } from '../fields';
import { defineKind } from '../kind';
import { symbolOf, texPart, withWorkings } from '../working';
import { paceFor } from './pace';

/** How closely a run followed the line that it was to follow. */
export const closeness = defineKind({
  kind: 'closeness',
  title: 'closeness to the line',
  yields: 'results',
  offered: 'nowhere',
  offers: [],
  fields: { of: seriesField() },
  sentence: ({ of }, nameOf) => `closeness of ${nameOf(of)} to the line`,
  evaluate({ of }, context) {
    const series = context.series(of);
    const { rms, mean, count } = closenessTo(series, paceFor(of, series, context));
    const plain = (key: string, name: string, value: number, main: boolean) => ({
      key,
      name,
      quantity: exactly(value, intervalUnit(series.unit)),
      roundTo: rms / 20,
      main,
    });
    return {
      kind: 'results',
      results: withWorkings(
        [
          plain('rms', 'rms difference', rms, true),
          plain('mean', 'mean difference', mean, false),
          { key: 'count', name: 'readings', quantity: exactly(count, []), roundTo: 10, main: false },
        ],
        {
          rms: () => ({
            formula: `\\sqrt{\\frac{1}{n}\\sum_{i=1}^{n} \\left({${symbolOf(series.symbol)}}_i-\\text{line}_i\\right)^2}`,
            putIn: `= \\sqrt{\\frac{${texPart({ value: square(rms) * count, unit: powerOfUnit(series.unit, 2) })}}{${count}}}`,
          }),
        },
      ),
      notes: [],
      fitted: null,
    };
  },
});
