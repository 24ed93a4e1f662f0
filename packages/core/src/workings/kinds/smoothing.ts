import { raisedWindow } from '../../calculus/flattening';
import { localPolynomialFilter } from '../../calculus/filter';
import { medianFilter } from '../../calculus/medianFilter';
import { type Series, sharedThrough } from '../../series/series';
import { choiceField, later, seriesField } from '../fields';
import { defineKind } from '../kind';
import { lossNote } from '../windowLoss';
import { idleOfWindow, pointsOf, windowFields, windowNote, windowWords } from '../window';

/**
 * A series smoothed by the same filter that takes derivatives, so that both flatten alike, and say so alike; or by a running
 * median, which takes single wrong readings off whole.
 */
export const smoothing = defineKind({
  kind: 'smoothing',
  title: 'smoothing',
  yields: 'series',
  drawnOver: true,
  offered: 'series',
  offers: [{ title: 'Smoothing of', preset: {} }],
  fields: {
    of: seriesField(),
    way: later(
      choiceField('By', [
        { key: 'polynomial', title: 'a local polynomial' },
        { key: 'median', title: 'a running median' },
      ]),
    ),
    ...windowFields,
  },
  idle: (entry) => [...idleOfWindow(entry), ...(entry.way === 'median' ? ['degree'] : [])],
  customaryName: (of) => `${of}_s`,
  sentence: (entry, nameOf) =>
    entry.way === 'median'
      ? `running median of ${nameOf(entry.of)} ${windowWords(entry)}`
      : `${nameOf(entry.of)} smoothed ${windowWords(entry)}${entry.degree === '2' ? '' : `, degree ${entry.degree}`}`,
  evaluate(entry, context) {
    const { name, of, way, degree } = entry;
    const before = context.before?.kind === 'series' ? context.before.series : undefined;
    const series = context.series(of);
    const windowPoints = pointsOf(entry, series);
    const window = raisedWindow({ windowPoints, degree: Number(degree) }, context.raised);
    const smooth = (like: Series, earlier?: Series) =>
      localPolynomialFilter(like, name, { ...window, order: 0 }, earlier);
    const made =
      way === 'median'
        ? { ...series, ...medianFilter(series, name, windowPoints), symbol: name }
        : {
            ...series,
            ...smooth(series, before),
            ...sharedThrough(series, (like) => smooth(like).values, 'kept'),
            symbol: name,
          };
    return {
      kind: 'series',
      series: made,
      notes: [...windowNote(entry, windowPoints), ...(way === 'median' ? [] : lossNote(made, context))],
    };
  },
});
