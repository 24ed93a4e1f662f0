import { intervalUnit } from '../../units/temperature';
import { Refusal } from '../../refusal';
import { exactly } from '../../results/quantity';
import { addSpans, scaledSpan } from '../../series/noisePath';
import { divideUnits } from '../../units/unit';
import { numberField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { momentAt, noiseReach } from '../moment';
import { weighed } from '../weighed';
import { withWorkings } from '../working';
import { workingsOfChange } from '../workingsOfChange';

const shown = (at: number) => String(Number(at.toPrecision(5))).replace('-', '−');

/**
 * By how much a series changes from one moment to another, and the slope of the straight line between the two points, as they
 * are read with two cursors. Moments are exact; the uncertainty is the noise of the readings at both.
 */
export const change = defineKind({
  kind: 'change',
  title: 'change between two cursors',
  yields: 'results',
  offered: 'nowhere',
  offers: [],
  fields: { of: seriesField(), from: numberField('From'), to: numberField('To') },
  sentence: ({ of, from, to }, nameOf) =>
    `change of ${nameOf(of)} from ${nameOf('t')} = ${shown(from)} to ${shown(to)}`,
  evaluate({ of, from, to }, context) {
    if (from === to)
      throw new Refusal('Both moments are the same one. Choose two, so that there is a change between them.');
    const series = context.series(of);
    const [first, second] = [momentAt(series, from), momentAt(series, to)];
    const weights = addSpans(second.weights, first.weights, -1);
    const difference = second.value - first.value;
    const duration = to - from;
    return {
      kind: 'results',
      results: withWorkings(
        [
          {
            key: 'change',
            name: 'change',
            quantity: weighed(difference, intervalUnit(series.unit), [[series, weights]], noiseReach),
            roundTo: null,
            main: true,
          },
          {
            key: 'slope',
            name: 'slope between',
            quantity: weighed(
              difference / duration,
              divideUnits(series.unit, series.timeUnit),
              [[series, scaledSpan(weights, 1 / duration)]],
              noiseReach,
            ),
            roundTo: null,
            main: false,
          },
          {
            key: 'duration',
            name: 'duration',
            quantity: exactly(duration, series.timeUnit),
            roundTo: null,
            main: false,
          },
        ],
        workingsOfChange(series, [from, first.value], [to, second.value]),
      ),
      notes: [],
      fitted: null,
    };
  },
});
