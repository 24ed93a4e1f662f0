import { runningIntegral } from '../../calculus/integral';
import { sharedThrough } from '../../series/series';
import { seriesField } from '../fields';
import { defineKind } from '../kind';

export const integral = defineKind({
  kind: 'integral',
  title: 'running integral',
  yields: 'series',
  offered: 'series',
  offers: [{ title: 'Running integral of', preset: {} }],
  fields: { of: seriesField() },
  customaryName: (of) => `∫${of}`,
  sentence: ({ of }, nameOf) => `∫ ${nameOf(of)} d ${nameOf('t')} from the first reading`,
  evaluate({ name, of }, context) {
    const earlier = context.before?.kind === 'series' ? context.before.series : undefined;
    const series = context.series(of);
    return {
      kind: 'series',
      series: {
        ...runningIntegral(series, name, earlier),
        ...sharedThrough(series, (like) => runningIntegral(like, name).values),
      },
      notes: [],
    };
  },
});
