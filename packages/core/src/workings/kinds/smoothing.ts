import { localPolynomialFilter } from '../../calculus/filter';
import { type Series, sharedThrough } from '../../series/series';
import { integerField, seriesField } from '../fields';
import { defineKind } from '../kind';

/** A series smoothed by the same filter that takes derivatives, so that both flatten alike, and say so alike. */
export const smoothing = defineKind({
  kind: 'smoothing',
  title: 'smoothing',
  yields: 'series',
  offered: 'series',
  offers: [{ title: 'Smoothing of', preset: {} }],
  fields: {
    of: seriesField(),
    windowPoints: integerField('Window', { low: 3, high: 1001, odd: true, usual: 9, slider: 61 }),
  },
  customaryName: (of) => `${of}_s`,
  sentence: ({ of, windowPoints }, nameOf) => `${nameOf(of)} smoothed over ${windowPoints} readings`,
  evaluate({ name, of, windowPoints }, context) {
    const before = context.before?.kind === 'series' ? context.before.series : undefined;
    const series = context.series(of);
    const smooth = (like: Series, earlier?: Series) =>
      localPolynomialFilter(like, name, { windowPoints, degree: 2, order: 0 }, earlier);
    return {
      kind: 'series',
      series: {
        ...series,
        ...smooth(series, before),
        ...sharedThrough(series, (like) => smooth(like).values),
        symbol: name,
      },
      notes: [],
    };
  },
});
