import { derivative } from '../../calculus/derivative';
import { tangentAt } from '../../calculus/tangent';
import { indexAtOrAfter } from '../../series/sampling';
import { printedUnit } from '../../units/unit';
import { integerField, numberField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { noiseReach } from '../moment';
import { weighed } from '../weighed';

const shown = (at: number) => String(Number(at.toPrecision(5))).replace('-', '−');

/** The slope of the tangent at one reading, over a window that is said; it is drawn on its trace. */
export const tangent = defineKind({
  kind: 'tangent',
  title: 'tangent at the cursor',
  yields: 'results',
  draws: 'curve',
  offered: 'nowhere',
  offers: [],
  fields: {
    of: seriesField(),
    at: numberField('At'),
    windowPoints: integerField('Window', { low: 3, high: 1001, odd: true, usual: 9, slider: 61 }),
  },
  sentence: ({ of, at, windowPoints }, nameOf) =>
    `tangent to ${nameOf(of)} at ${nameOf('t')} = ${shown(at)} over ${windowPoints} readings`,
  evaluate({ of, at, windowPoints }, context) {
    const series = context.series(of);
    const touching = tangentAt(series, at, windowPoints);
    const slopes = derivative(series, { symbol: 'slope', windowPoints });
    const index = indexAtOrAfter(series.sampling, touching.at);
    const weights = { first: index, weights: Float64Array.of(1) };
    const unit = printedUnit(series.timeUnit);
    const reach = 2 * touching.window;
    const ends = Float64Array.of(touching.at - reach, touching.at + reach);
    return {
      kind: 'results',
      results: [
        {
          key: 'slope',
          name: 'slope',
          quantity: weighed(touching.slope, slopes.unit, [[slopes, weights]], noiseReach),
          roundTo: null,
          main: true,
        },
      ],
      notes: [`The window is ${shown(touching.window)}${unit === '' ? '' : ` ${unit}`} long.`],
      fitted: null,
      curve: { x: ends, y: ends.map((x) => touching.value + touching.slope * (x - touching.at)) },
    };
  },
});
