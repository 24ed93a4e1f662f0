import { closeness as closenessTo } from '../../pace/closeness';
import { exactly } from '../../results/quantity';
import { seriesField } from '../fields';
import { defineKind } from '../kind';
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
      quantity: exactly(value, series.unit),
      roundTo: rms / 20,
      main,
    });
    return {
      kind: 'results',
      results: [
        plain('rms', 'rms difference', rms, true),
        plain('mean', 'mean difference', mean, false),
        { key: 'count', name: 'readings', quantity: exactly(count, []), roundTo: 10, main: false },
      ],
      notes: [],
      fitted: null,
    };
  },
});
