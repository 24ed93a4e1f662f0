import { numberField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { momentAt, noiseReach } from '../moment';
import { weighed } from '../weighed';

const shown = (at: number) => String(Number(at.toPrecision(5))).replace('-', '−');

/** The value of a series at one moment, as it is read with the cursor. Its uncertainty is the noise of the readings there. */
export const readout = defineKind({
  kind: 'readout',
  title: 'value at the cursor',
  yields: 'results',
  offered: 'nowhere',
  offers: [],
  fields: { of: seriesField(), at: numberField('At') },
  sentence: ({ of, at }, nameOf) => `${nameOf(of)} at ${nameOf('t')} = ${shown(at)}`,
  evaluate({ of, at }, context) {
    const series = context.series(of);
    const { value, weights } = momentAt(series, at);
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
      ],
      notes: [],
      fitted: null,
    };
  },
});
