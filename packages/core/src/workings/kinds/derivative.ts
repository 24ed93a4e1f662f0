import { derivative as differentiate } from '../../calculus/derivative';
import { sharedThrough } from '../../series/series';
import { integerField, seriesField } from '../fields';
import { defineKind } from '../kind';

const customary: Readonly<Record<string, string>> = { x: 'v', v: 'a', θ: 'ω', ω: 'α' };

export const derivative = defineKind({
  kind: 'derivative',
  title: 'derivative',
  yields: 'series',
  offered: 'series',
  offers: [{ title: 'Derivative of', preset: {} }],
  fields: {
    of: seriesField(),
    windowPoints: integerField('Window', { low: 3, high: 1001, odd: true, usual: 9, slider: 61 }),
  },
  customaryName: (of) => customary[of] ?? `d${of}`,
  sentence: ({ of, windowPoints }, nameOf) =>
    `d ${nameOf(of)}/d ${nameOf('t')} over ${windowPoints} readings`,
  evaluate({ name, of, windowPoints }, context) {
    const earlier = context.before?.kind === 'series' ? context.before.series : undefined;
    const series = context.series(of);
    const options = { symbol: name, windowPoints };
    return {
      kind: 'series',
      series: {
        ...differentiate(series, options, earlier),
        ...sharedThrough(series, (like) => differentiate(like, options).values),
      },
      notes: [],
    };
  },
});
