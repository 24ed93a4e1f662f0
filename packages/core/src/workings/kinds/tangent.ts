import { derivative } from '../../calculus/derivative';
import { raisedWindow } from '../../calculus/flattening';
import { tangentAt } from '../../calculus/tangent';
import { indexAtOrAfter } from '../../series/sampling';
import { type Series } from '../../series/series';
import { printedUnit } from '../../units/unit';
import { integerField, numberField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { noiseReach } from '../moment';
import { weighed } from '../weighed';

const shown = (at: number) => String(Number(at.toPrecision(5))).replace('-', '−');

const slopesOf = (series: Series, windowPoints: number, raised: number): Series =>
  derivative(series, { symbol: 'this tangent', ...raisedWindow({ windowPoints, degree: 2 }, raised) });

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
  ownSeries: ({ of, windowPoints }, context) => slopesOf(context.series(of), windowPoints, context.raised),
  evaluate({ of, at, windowPoints }, context) {
    const series = context.series(of);
    const window = raisedWindow({ windowPoints, degree: 2 }, context.raised);
    const touching = tangentAt(series, at, window);
    const slopes = slopesOf(series, windowPoints, context.raised);
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
