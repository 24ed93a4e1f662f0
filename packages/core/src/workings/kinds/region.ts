import { eventIn } from '../../calculus/events';
import { swingsOf } from '../../calculus/swings';
import { Refusal } from '../../refusal';
import { indexAfter, indexAtOrAfter, timeAt } from '../../series/sampling';
import { type Series } from '../../series/series';
import {
  type Anchor,
  anchorField,
  anySeriesField,
  axisField,
  later,
  levelField,
  ownIntervalsField,
  textField,
} from '../fields';
import { anchorWords } from '../anchorWords';
import { type Context, defineKind } from '../kind';

/**
 * An interval of one axis, lettered A, B, C … Its ends are fixed, or attached to something that happens in each run, so that
 * repeated runs are cut alike; it may be cut down to whole cycles; and it may lie elsewhere in one run alone.
 */
export const region = defineKind({
  kind: 'region',
  title: 'region',
  yields: 'region',
  offered: 'nowhere',
  offers: [],
  fields: {
    letter: textField('Letter', 2, 'A', /^[A-Z]{1,2}$/),
    along: axisField('Along'),
    start: levelField('Start', 'along'),
    end: levelField('End', 'along', 1),
    from: later(anchorField('Begins when')),
    until: later(anchorField('Ends when')),
    cyclesOf: later(anySeriesField('Whole cycles of', 'nothing, as it is marked')),
    own: later(ownIntervalsField('In one run alone', 'along')),
  },
  idle: ({ along }) => (along === 't' ? [] : ['from', 'until', 'cyclesOf']),
  sentence: ({ name, from, until, cyclesOf, along, toldIn }, nameOf) => {
    if (along !== 't') return name;
    const parts = [
      ...(from === null ? [] : [`from ${anchorWords(from, nameOf, { toldIn })}`]),
      ...(until === null ? [] : [`to ${anchorWords(until, nameOf, { toldIn })}`]),
      ...(cyclesOf === 't' ? [] : [`whole cycles of ${nameOf(cyclesOf)}`]),
    ];
    return parts.join(', ');
  },
  evaluate({ start, end, from, until, cyclesOf, own, along }, context) {
    if (!(end > start))
      throw new Refusal('This region has no length. Its end must be greater than its start.');
    const mine = own.find(({ run }) => run === context.runId);
    if (mine !== undefined)
      return {
        kind: 'region',
        start: mine.start,
        end: mine.end,
        cut: { start: mine.start, end: mine.end },
        notes: ['It lies elsewhere in this run than in the others.'],
      };
    if (along !== 't') return { kind: 'region', start, end, cut: { start, end }, notes: [] };
    const cut = {
      start: from === null ? start : momentOf(from, context),
      end: until === null ? end : momentOf(until, context),
    };
    if (!(cut.end > cut.start))
      throw new Refusal(
        'In this run the end of this region comes before its start. Attach it to something later.',
      );
    const whole = cyclesOf === 't' ? cut : wholeCycles(context.series(cyclesOf), cut);
    return { kind: 'region', ...whole, cut, notes: [] };
  },
});

const momentOf = (anchor: Anchor, context: Context): number =>
  eventIn(context.series(anchor.of), anchor).value + anchor.offset;

/** A part of a period that may be lacking at the end of an interval of whole ones: crossings are known no better. */
const lacking = 0.02;

/**
 * The whole cycles of a series in an interval: from its first rise through its middle to the last one, or from fall to fall where
 * that keeps more. Where one more period has room, as in a run that begins with a crossing, they begin with the interval itself.
 * @throws Refusal where no whole cycle lies in there
 */
function wholeCycles(series: Series, { start, end }: { start: number; end: number }) {
  const { sampling, symbol, values } = series;
  const [first, past] = [indexAtOrAfter(sampling, start), indexAfter(sampling, end)];
  const rises = swingsOf(series, first, past).starts;
  const falls = swingsOf({ ...series, values: values.map((value) => -value) }, first, past).starts;
  const starts = (falls.length > rises.length ? falls : rises).map(({ value }) => value);
  const count = starts.length - 1;
  if (count < 1)
    throw new Refusal(
      `No whole cycle of ${symbol} lies in this region: it has to rise, or to fall, through its middle twice. Make the region longer.`,
    );
  const period = (starts[count] - starts[0]) / count;
  const from = Math.max(start, timeAt(sampling, first));
  const fitting = Math.floor((Math.min(end, timeAt(sampling, past - 1)) - from) / period + lacking);
  return fitting > count
    ? { start: from, end: from + fitting * period }
    : { start: starts[0], end: starts[count] };
}
