import { eventIn } from '../../calculus/events';
import { exactly } from '../../results/quantity';
import { anchorWords } from '../anchorWords';
import { anchorField, later, numberField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { momentAt, noiseReach } from '../moment';
import { weighed } from '../weighed';

const shown = (at: number) => String(Number(at.toPrecision(5))).replace('-', '−');

/**
 * The value of a series at one moment, as it is read with the cursor, or when something happens in the run. Its uncertainty is
 * the noise of the readings there.
 */
export const readout = defineKind({
  kind: 'readout',
  title: 'value at a moment',
  yields: 'results',
  offered: 'series',
  offers: [
    {
      title: 'Value at a crossing or peak of',
      preset: { when: { event: 'greatest', of: 't', level: 0, count: 1, offset: 0 } },
    },
  ],
  fields: { of: seriesField(), at: numberField('At'), when: later(anchorField('When')) },
  idle: ({ when }) => (when === null ? [] : ['at']),
  sentence: ({ of, at, when, toldIn }, nameOf) =>
    when === null
      ? `${nameOf(of)} at ${nameOf('t')} = ${shown(at)}`
      : `${nameOf(of)} when ${anchorWords(when, nameOf, { toldIn })}`,
  evaluate({ of, at, when }, context) {
    const series = context.series(of);
    const moment = when === null ? at : eventIn(context.series(when.of), when).value + when.offset;
    const { value, weights } = momentAt(series, moment);
    return {
      kind: 'results',
      results: [
        {
          key: 'value',
          name: 'value',
          quantity: weighed(value, series.unit, [[series, weights]], noiseReach),
          roundTo: null,
          main: true,
        },
        ...(when === null
          ? []
          : [
              {
                key: 'at',
                name: 'at',
                quantity: exactly(moment, series.timeUnit),
                roundTo: null,
                main: false,
              },
            ]),
      ],
      notes: [],
      fitted: null,
    };
  },
});
