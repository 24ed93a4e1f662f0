import { type WeightedValue } from '../../calculus/cycles';
import { eventIn } from '../../calculus/events';
import { Refusal } from '../../refusal';
import { type WeightSpan } from '../../series/noisePath';
import { type Series } from '../../series/series';
import { intervalUnit } from '../../units/temperature';
import { anchorField, axisField, choiceField, later, levelField, numberField, regionField } from '../fields';
import { anchorWords } from '../anchorWords';
import { meanIn } from '../baseline';
import { defineKind } from '../kind';
import { momentAt } from '../moment';
import { movedBy, movedSeries } from '../movedSeries';
import { unitWords } from '../unitWords';

const none: WeightSpan = { first: 0, weights: new Float64Array(0) };
const shown = (value: number) => String(Number(value.toPrecision(5))).replace('-', '−');

/** A series moved and stretched: less a number, less its own mean where nothing happens, or counted from an event. */
export const shifted = defineKind({
  kind: 'shifted',
  title: 'shifted series',
  yields: 'series',
  offered: 'series',
  offers: [{ title: 'Shift and scale', preset: {} }],
  fields: {
    of: axisField('Of'),
    less: choiceField('Less', [
      { key: 'number', title: 'a number' },
      { key: 'mean', title: 'its mean in a region' },
      { key: 'event', title: 'what it is at a crossing or peak' },
    ]),
    number: levelField('Number'),
    meanOf: later(regionField('Mean of')),
    when: later(anchorField('When')),
    factor: numberField('Times', 1),
  },
  idle: ({ less }) => [
    ...(less === 'number' ? [] : ['number']),
    ...(less === 'mean' ? [] : ['meanOf']),
    ...(less === 'event' ? [] : ['when']),
  ],
  customaryName: (of) => `${of}_0`,
  sentence: ({ of, less, number, when, factor, toldIn }, nameOf) => {
    const what = nameOf(of);
    const taken =
      less === 'mean'
        ? `${what} less its mean at rest`
        : less === 'event'
          ? `${what} from where ${when === null ? '…' : anchorWords(when, nameOf, { toldIn })}`
          : number === 0
            ? what
            : `${what} ${number < 0 ? '+' : '−'} ${shown(Math.abs(number))}${unitWords(toldIn, of)}`;
    return factor === 1 ? taken : `(${taken}) · ${shown(factor)}`;
  },
  evaluate({ name, of, less, number, meanOf, when, factor }, context) {
    if (factor === 0) throw new Refusal('Times 0 leaves nothing. Type another factor.');
    const series = context.series(of, when === null ? undefined : context.series(when.of));
    const { weighted, from } = takenOff();
    function takenOff(): { weighted: WeightedValue; from: Series } {
      if (less === 'mean') return { weighted: meanIn(series, meanOf, context), from: series };
      if (less === 'number') return { weighted: { value: number, weights: none }, from: series };
      if (when === null) throw new Refusal('Choose the event from which it is counted.');
      const source = context.series(when.of);
      const moment = eventIn(source, when);
      const at = moment.value + when.offset;
      // Time counts from a moment that readings tell; anything else from what it is at that moment.
      return of === 't'
        ? { weighted: { value: at, weights: moment.weights }, from: source }
        : { weighted: momentAt(series, at), from: series };
    }
    return {
      kind: 'series',
      series: movedSeries(series, {
        symbol: name,
        // What a number is taken off, or what is stretched, is a difference.
        ...(less === 'number' && number === 0 && factor === 1 ? {} : { unit: intervalUnit(series.unit) }),
        values: series.values.map((value) => (value - weighted.value) * factor),
        factor,
        shared: movedBy(weighted, from, new Float64Array(series.values.length).fill(-factor)),
      }),
      notes: [],
    };
  },
});
