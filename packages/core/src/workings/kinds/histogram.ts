import { intervalUnit } from '../../units/temperature';
import { describe } from '../../statistics/describe';
import { histogramOf } from '../../statistics/histogram';
import { exactly } from '../../results/quantity';
import { printedUnit } from '../../units/unit';
import { choiceField, widthField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { leftOutNotes, reachNote, select } from '../selection';
import { statisticsOf } from './statistics';

/** How often the readings of an interval took which values, with their mean and standard deviation. */
export const histogram = defineKind({
  kind: 'histogram',
  title: 'histogram',
  yields: 'results',
  draws: 'graph',
  offered: 'region',
  offers: [{ title: 'histogram', preset: {} }],
  fields: {
    of: seriesField(),
    region: regionField(),
    rule: choiceField('Bins', [
      { key: 'spread', title: 'by the spread (Freedman and Diaconis)' },
      { key: 'root', title: 'about √n of them' },
      { key: 'typed', title: 'of the width below' },
    ]),
    width: widthField('Width'),
  },
  sentence: ({ of }, nameOf) => `histogram of ${nameOf(of)}`,
  evaluate({ of, region: regionId, rule, width: typed }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    const selection = select(context, series, 't', region);
    const { count, mean, standardDeviation } = describe(selection.y);
    const { edges, counts, width, ruled, step } = histogramOf(selection.y, rule, typed);
    const { symbol, quantity, unit } = series;
    const spread = count > 1 ? standardDeviation : 0;
    return {
      kind: 'results',
      results: [
        ...statisticsOf(series, selection).results.filter(({ key }) => ['mean', 'sd', 'count'].includes(key)),
        {
          key: 'width',
          name: 'width of the bins',
          quantity: exactly(width, intervalUnit(unit)),
          roundTo: width / 10,
          main: false,
        },
      ],
      notes: [
        widthNote(rule, ruled, width, step, printedUnit(unit)),
        ...leftOutNotes(selection, count),
        ...reachNote(series, region),
      ],
      fitted: null,
      graph: {
        horizontal: { symbol, quantity, unit },
        vertical: { symbol: 'readings', quantity: 'count', unit: [] },
        shape: 'bars',
        x: edges,
        y: counts,
        marks: [{ at: mean, half: spread, text: spread > 0 ? 'mean ± sd' : 'mean' }],
      },
    };
  },
});

const shown = (value: number, digits = 3) => String(Number(value.toPrecision(digits))).replace('-', '−');

function widthNote(rule: string, ruled: number, width: number, step: number | null, unit: string): string {
  const of = (value: number) => `${shown(value)}${unit === '' ? '' : ` ${unit}`}`;
  if (rule === 'typed') return `Bins of ${of(width)}, as typed; each holds its lower end.`;
  const why = rule === 'spread' ? 'twice the interquartile range over ∛n' : 'the range over √n';
  const how =
    step === null
      ? 'rounded to 1, 2 or 5 times a power of ten'
      : `made a whole number of the steps of ${of(step)} in which the readings come`;
  return `Bins of ${of(width)}: ${why} is ${of(ruled)}, ${how}.`;
}
