import { runningIntegral } from '../../calculus/integral';
import { eventIn } from '../../calculus/events';
import { timeAt, timesOf } from '../../series/sampling';
import { longestSumBridge } from '../../calculus/gaps';
import { printedUnit } from '../../units/unit';
import { type Series, sharedThrough } from '../../series/series';
import { anchorField, choiceField, later, levelField, regionField, seriesField } from '../fields';
import { baselineWords, idleOfBaseline, levelUnder, scaleNote } from '../baseline';
import { type Context, defineKind } from '../kind';
import { momentAt } from '../moment';
import { movedBy, movedSeries } from '../movedSeries';
import { anchorWords } from '../anchorWords';
import { type Anchor } from '../fields';

/** The running integral, from what counts as nothing under it, and zero at the first reading or where something happens. */
export const integral = defineKind({
  kind: 'integral',
  title: 'running integral',
  yields: 'series',
  offered: 'series',
  offers: [{ title: 'Running integral of', preset: {} }],
  fields: {
    of: seriesField(),
    baseline: later(
      choiceField('From', [
        { key: 'zero', title: 'zero' },
        { key: 'level', title: 'a level' },
        { key: 'mean', title: 'the mean of a region' },
      ]),
    ),
    level: later(levelField('Level')),
    meanOf: later(regionField('Mean of')),
    start: later(anchorField('Zero when')),
  },
  idle: idleOfBaseline,
  customaryName: (of) => `∫${of}`,
  sentence: ({ start, ...rest }, nameOf) =>
    `∫ ${nameOf(rest.of)} d ${nameOf('t')}${baselineWords(rest)}, zero ${start === null ? 'at the first reading' : `when ${anchorWords(start, nameOf, rest)}`}`,
  evaluate({ name, of, start, ...rest }, context) {
    const earlier = context.before?.kind === 'series' ? context.before.series : undefined;
    const series = context.series(of);
    const isPlain = rest.baseline === 'zero' && start === null;
    const whole: Series = {
      ...runningIntegral(series, name, isPlain ? earlier : undefined),
      ...sharedThrough(series, (like) => runningIntegral(like, name).values),
    };
    const notes = [...scaleNote(series, rest), ...bridgedNote(series)];
    if (isPlain) return { kind: 'series', series: whole, notes };
    const level = levelUnder(series, rest, context);
    const raised = level === null ? whole : withoutLevel(whole, series, level.value, level);
    return {
      kind: 'series',
      series: start === null ? raised : zeroedAt(raised, momentOf(start, context)),
      notes,
    };
  },
});

/** Says over how many missing readings the sum went on, and how many in a row it would. */
function bridgedNote({ values, sampling, timeUnit }: Series): string[] {
  const first = values.findIndex((value) => !Number.isNaN(value));
  let [missing, waiting, longest, at] = [0, 0, 0, 0];
  for (let i = Math.max(first, 0); i < values.length; i++) {
    if (Number.isNaN(values[i])) {
      waiting++;
      continue;
    }
    if (waiting > longest) [longest, at] = [waiting, i - waiting];
    missing += waiting;
    waiting = 0;
  }
  if (missing === 0) return [];
  const unit = printedUnit(timeUnit);
  const [readings, were] = missing === 1 ? ['reading', 'was'] : ['readings', 'were'];
  return [
    `${missing} missing ${readings} ${were} bridged by a straight line, at most ${longest} in a row (at ${Number(timeAt(sampling, at).toPrecision(5))}${unit === '' ? '' : ` ${unit}`}); up to ${longestSumBridge} are.`,
  ];
}

const momentOf = (start: Anchor, context: Context): number =>
  eventIn(context.series(start.of), start).value + start.offset;

/** The integral of a series less a level: that level grows with the time since the first reading. */
function withoutLevel(
  whole: Series,
  series: Series,
  level: number,
  weighted: Parameters<typeof movedBy>[0],
): Series {
  const times = timesOf(whole.sampling);
  const from = series.values.findIndex((value) => !Number.isNaN(value));
  const since = Float64Array.from(whole.values, (_, i) => times[i] - times[Math.max(from, 0)]);
  return movedSeries(whole, {
    symbol: whole.symbol,
    values: whole.values.map((value, i) => value - level * since[i]),
    factor: 1,
    shared: movedBy(
      weighted,
      series,
      since.map((time) => -time),
    ),
  });
}

/** Less its own value at a moment. @throws Refusal where the series does not reach there */
function zeroedAt(series: Series, at: number): Series {
  const moment = momentAt(series, at);
  return movedSeries(series, {
    symbol: series.symbol,
    values: series.values.map((value) => value - moment.value),
    factor: 1,
    shared: movedBy(moment, series, new Float64Array(series.values.length).fill(-1)),
  });
}
