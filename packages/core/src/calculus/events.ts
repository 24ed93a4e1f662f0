import { Refusal } from '../refusal';
import { describe } from '../statistics/describe';
import { type WeightSpan } from '../series/noisePath';
import { countOf, timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { type WeightedValue, crossingAt } from './cycles';
import { crossingsOf } from './crossings';
import { printedUnit } from '../units/unit';
import { noiseOf, turnsOf } from './turns';

/** Something that happens in every run, at a moment of its own. */
export type EventKind =
  | 'begins'
  | 'ends'
  | 'rises'
  | 'falls'
  | 'peak'
  | 'trough'
  | 'greatest'
  | 'least'
  | 'moves'
  | 'stills'
  | 'edge';

/** Every event, as it is called in a sentence. */
export const eventTitles: Readonly<Record<EventKind, string>> = {
  begins: 'the run begins',
  ends: 'the run ends',
  rises: 'it rises through a level',
  falls: 'it falls through a level',
  peak: 'it has a peak',
  trough: 'it has a trough',
  greatest: 'it is greatest',
  least: 'it is least',
  moves: 'it leaves its rest',
  stills: 'it comes to its last rest',
  edge: 'a beam is blocked',
};

export interface EventRule {
  event: EventKind;
  /** Where a level is crossed. */
  level: number;
  /** Which one, from 1 on, of those that can happen more than once. */
  count: number;
}

/** Whether an event can happen more than once in a run. */
export const isCounted = (event: EventKind): boolean =>
  ['rises', 'falls', 'peak', 'trough', 'edge'].includes(event);

const exact: WeightSpan = { first: 0, weights: new Float64Array(0) };
const ordinals = ['first', 'second', 'third', 'fourth', 'fifth'];
const ordinal = (count: number) => ordinals[count - 1] ?? `${count}th`;

/**
 * When something happens in a series, and how each reading moves that moment.
 * @throws Refusal where it does not happen
 */
export function eventIn(series: Series, { event, level, count }: EventRule): WeightedValue {
  const { sampling, values, symbol } = series;
  const n = countOf(sampling);
  if (n === 0) throw new Refusal(`${symbol} has no reading.`);
  const at = (all: readonly WeightedValue[], what: string): WeightedValue => {
    const found = all[count - 1];
    if (found !== undefined) return found;
    throw new Refusal(
      all.length === 0
        ? `${symbol} has no ${what} in this run. Attach to something else that happens in it.`
        : `${symbol} has ${all.length} of what is looked for (${what}), and no ${ordinal(count)} one.`,
    );
  };
  switch (event) {
    case 'begins':
      return { value: timeAt(sampling, 0), weights: exact };
    case 'ends':
      return { value: timeAt(sampling, n - 1), weights: exact };
    case 'rises':
    case 'falls':
      return at(
        Array.from(crossingsOf(series, level, event === 'rises' ? 'rise' : 'fall'), (moment) =>
          crossingAt(series, level, moment),
        ),
        `${event === 'rises' ? 'rise' : 'fall'} through ${`${Number(level.toPrecision(5))} ${printedUnit(series.unit)}`.trim()}`,
      );
    case 'peak':
    case 'trough':
      return at(
        turnsOf(series)
          .filter(({ kind }) => kind === event)
          .map(({ time }) => time),
        event,
      );
    case 'greatest':
    case 'least': {
      const { indexOfMaximum, indexOfMinimum } = describe(values);
      const index = event === 'greatest' ? indexOfMaximum : indexOfMinimum;
      const turn = turnsOf(series).find((one) => one.index === index);
      return turn?.time ?? { value: timeAt(sampling, index), weights: exact };
    }
    case 'moves':
      return { value: timeAt(sampling, leaving(series, 1)), weights: exact };
    case 'stills':
      return { value: timeAt(sampling, leaving(series, -1)), weights: exact };
    case 'edge': {
      if (sampling.kind !== 'events')
        throw new Refusal(`${symbol} is no beam. Attach to a level, a peak, or the begin of the run.`);
      const { times, states } = sampling;
      return at(
        [...times].filter((_, i) => states[i] === 1).map((value) => ({ value, weights: exact })),
        'blocking',
      );
    }
  }
}

/** So many standard deviations from its rest a value has left it; noise comes so far once in 15 000 readings. */
const clearly = 4;
/** So many readings in a row tell that it was no accident. */
const inARow = 3;
/** So many readings tell a rest. */
const fewest = 8;
/** A still series scatters by its noise; five times that is motion. Common practice, no source. */
const motionNoises = 5;

/**
 * The last reading at which a series still rests, seen from its begin (direction 1) or its end (−1). Its rest follows from all
 * readings up to there, eight at least.
 * @throws Refusal where it does not rest there, or never leaves its rest
 */
function leaving(series: Series, direction: 1 | -1): number {
  const { values, symbol } = series;
  const n = values.length;
  const ahead = (k: number) => (direction === 1 ? k : n - 1 - k);
  const sigma = noiseOf(series, 0, n);
  const [where, never] =
    direction === 1
      ? ['at the begin of', 'never leaves its rest']
      : ['at the end of', 'does not come to rest'];
  let [count, mean, squares, gone] = [0, 0, 0, 0];
  for (let k = 0; k < n; k++) {
    const value = values[ahead(k)];
    if (Number.isNaN(value)) continue;
    const scatter = count > 1 ? Math.sqrt(squares / (count - 1)) : 0;
    if (count === fewest && sigma > 0 && scatter > motionNoises * sigma)
      throw new Refusal(
        `${symbol} does not rest ${where} this run. Attach to something else that happens in it.`,
      );
    const margin = clearly * Math.max(scatter, sigma, Number.EPSILON * Math.abs(mean));
    const isGone = count >= fewest && Math.abs(value - mean) > margin;
    gone = isGone ? gone + 1 : 0;
    if (gone === inARow) return ahead(Math.max(k - inARow, 0));
    if (isGone) continue;
    // Mean and squares go on reading by reading (Welford, Technometrics 4 (1962) 419).
    count++;
    const off = value - mean;
    mean += off / count;
    squares += off * (value - mean);
  }
  throw new Refusal(`${symbol} ${never} in this run. Attach to something else that happens in it.`);
}
