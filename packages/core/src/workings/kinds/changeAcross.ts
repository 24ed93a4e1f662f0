import { intervalUnit } from '../../units/temperature';
import { exactly } from '../../results/quantity';
import { addSpans, scaledSpan } from '../../series/noisePath';
import { countOf, timeAt } from '../../series/sampling';
import { divideUnits } from '../../units/unit';
import { regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { momentAt } from '../moment';
import { rangeIn, reachNote, select } from '../selection';
import { weighed } from '../weighed';
import { withWorkings } from '../working';
import { workingsOfChange } from '../workingsOfChange';

/**
 * By how much a series changes across a region: what it is at its end less what it is at its start. Uncertain by the noise of the
 * readings at both, as the readings of the region tell it.
 */
export const changeAcross = defineKind({
  kind: 'changeAcross',
  title: 'change',
  yields: 'results',
  offered: 'region',
  offers: [{ title: 'change', preset: {} }],
  fields: { of: seriesField(), region: regionField() },
  sentence: ({ of }, nameOf) => `change of ${nameOf(of)}`,
  evaluate({ of, region: regionId }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    const { sampling, unit, timeUnit } = series;
    const last = timeAt(sampling, countOf(sampling) - 1);
    const inTime = region === null || region.along === 't';
    const { x, first, past } = select(context, series, 't', region);
    // Along another quantity it changes from the first to the last reading that lies in the region.
    const [from, to] =
      inTime && region !== null
        ? [Math.max(region.start, timeAt(sampling, 0)), Math.min(region.end, last)]
        : [x[0], x[x.length - 1]];
    const [a, b] = [momentAt(series, from), momentAt(series, to)];
    const weights = addSpans(b.weights, a.weights, -1);
    const [low, high] = inTime ? rangeIn(series, region) : [first, past];
    const spread = { first: low, past: high };
    const named = (
      key: string,
      name: string,
      value: number,
      factor: number,
      inUnit: typeof unit,
      main = false,
    ) => ({
      key,
      name,
      quantity: weighed(value, inUnit, [[series, scaledSpan(weights, factor)]], spread),
      roundTo: null,
      main,
    });
    const difference = b.value - a.value;
    const plain = (key: string, name: string, value: number, inUnit = unit) => ({
      key,
      name,
      quantity: exactly(value, inUnit),
      roundTo: null,
      main: false,
    });
    return {
      kind: 'results',
      results: withWorkings(
        [
          named('change', 'change', difference, 1, intervalUnit(unit), true),
          plain('start', 'at the start', a.value),
          plain('end', 'at the end', b.value),
          ...(to > from
            ? [
                named(
                  'rate',
                  'mean rate',
                  difference / (to - from),
                  1 / (to - from),
                  divideUnits(unit, timeUnit),
                ),
                plain('duration', 'duration', to - from, timeUnit),
              ]
            : []),
        ],
        workingsOfChange(series, [from, a.value], [to, b.value]),
      ),
      notes: reachNote(series, region),
      fitted: null,
    };
  },
});
