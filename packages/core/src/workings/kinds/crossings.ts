import { type WeightedValue, crossingAt, differenceOf } from '../../calculus/cycles';
import { crossingsOf } from '../../calculus/crossings';
import { Refusal } from '../../refusal';
import { exactly } from '../../results/quantity';
import { timeAt } from '../../series/sampling';
import { printedUnit } from '../../units/unit';
import { choiceField, levelField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { rangeIn, reachNote } from '../selection';
import { weightedQuantity } from '../weightedValues';
import { unitWords } from '../unitWords';
import { withWorkings, workingBy } from '../working';

const spaced = (unit: string) => (unit === '' ? '' : ` ${unit}`);
const shown = (value: number) => String(Number(value.toPrecision(5))).replace('-', '−');

/**
 * When a series goes through a level, how often, and how long after the begin of the region. Each crossing lies on the straight
 * line between two readings; noise about the level is none.
 */
export const crossings = defineKind({
  kind: 'crossings',
  title: 'crossings of a level',
  yields: 'results',
  offered: 'region',
  offers: [{ title: 'crossings', preset: {} }],
  fields: {
    of: seriesField(),
    direction: choiceField('Counted', [
      { key: 'both', title: 'both ways' },
      { key: 'rise', title: 'rising' },
      { key: 'fall', title: 'falling' },
    ]),
    level: levelField('Level'),
    region: regionField(),
  },
  sentence: ({ of, direction, level, toldIn }, nameOf) =>
    `${nameOf(of)} ${direction === 'both' ? 'through' : direction === 'rise' ? 'rising through' : 'falling through'} ${shown(level)}${unitWords(toldIn, of)}`,
  evaluate({ of, direction, level, region: regionId }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    const [first, past] = rangeIn(series, region);
    const ways = direction === 'both' ? (['rise', 'fall'] as const) : ([direction] as const);
    const found: WeightedValue[] = ways
      .flatMap((way) => [...crossingsOf(series, level, way, first, past)])
      .sort((a, b) => a - b)
      .map((moment) => crossingAt(series, level, moment, first, past));
    if (found.length === 0)
      throw new Refusal(
        `${series.symbol} does not go through ${shown(level)}${spaced(printedUnit(series.unit))} here. Type another level, or move the region.`,
      );
    const named = weightedQuantity(series, first, past);
    const start = region?.along === 't' ? region.start : timeAt(series.sampling, first);
    const [one, last] = [found[0], found[found.length - 1]];
    const at = (value: number) => ({ value, unit: series.timeUnit });
    return {
      kind: 'results',
      results: withWorkings(
        [
          named('first', 'first crossing', one, series.timeUnit, true),
          named(
            'after',
            'time to the level',
            { value: one.value - start, weights: one.weights },
            series.timeUnit,
          ),
          ...(found.length < 2
            ? []
            : [
                named('last', 'last crossing', last, series.timeUnit),
                named(
                  'spacing',
                  'from crossing to crossing',
                  differenceOf(last, one, found.length - 1),
                  series.timeUnit,
                ),
              ]),
          { key: 'count', name: 'crossings', quantity: exactly(found.length, []), roundTo: 1, main: false },
        ],
        {
          after: () => workingBy('\\Delta t', 't_1 - t_0', { t_1: at(one.value), t_0: at(start) }),
          spacing: () =>
            workingBy('\\Delta t', '(t_n - t_1)/(n - 1)', {
              t_n: at(last.value),
              t_1: at(one.value),
              n: { value: found.length, unit: [] },
            }),
        },
      ),
      notes: reachNote(series, region),
      fitted: null,
    };
  },
});
