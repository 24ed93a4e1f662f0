import { raisedWindow } from '../../calculus/flattening';
import { derivative as differentiate } from '../../calculus/derivative';
import { sharedThrough } from '../../series/series';
import { choiceField, later, seriesField } from '../fields';
import { defineKind } from '../kind';
import { lossNote } from '../windowLoss';
import { idleOfWindow, pointsOf, windowFields, windowNote, windowWords } from '../window';

const customary: Readonly<Record<string, string>> = { x: 'v', v: 'a', θ: 'ω', ω: 'α' };

export const derivative = defineKind({
  kind: 'derivative',
  title: 'derivative',
  yields: 'series',
  offered: 'series',
  offers: [{ title: 'Derivative of', preset: {} }],
  fields: {
    of: seriesField(),
    order: later(
      choiceField('Taken', [
        { key: '1', title: 'once' },
        { key: '2', title: 'twice' },
      ]),
    ),
    ...windowFields,
  },
  idle: idleOfWindow,
  customaryName: (of) => customary[of] ?? `d${of}`,
  sentence: (entry, nameOf) =>
    `${entry.order === '1' ? `d ${nameOf(entry.of)}/d ${nameOf('t')}` : `d² ${nameOf(entry.of)}/d ${nameOf('t')}²`} ${windowWords(entry)}${entry.degree === '2' ? '' : `, degree ${entry.degree}`}`,
  evaluate(entry, context) {
    const { name, of, degree } = entry;
    const earlier = context.before?.kind === 'series' ? context.before.series : undefined;
    const series = context.series(of);
    const windowPoints = pointsOf(entry, series);
    const order = entry.order === '2' ? 2 : 1;
    const window = raisedWindow({ windowPoints, degree: Number(degree) }, context.raised);
    const options = { symbol: name, order, ...window } as const;
    const made = {
      ...differentiate(series, options, earlier),
      ...sharedThrough(series, (like) => differentiate(like, options).values, 'gone'),
    };
    return {
      kind: 'series',
      series: made,
      notes: [...windowNote(entry, windowPoints), ...lossNote(made, context)],
    };
  },
});
