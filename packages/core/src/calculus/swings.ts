import { square } from '../elementary';
import { sumOfSpans } from '../series/noisePath';
import { timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { describe } from '../statistics/describe';
import { crossingsOf } from './crossings';
import { type Cycles, type WeightedValue, LazyWeightedValue, crossingNear, cyclesOf } from './cycles';
import { type Turn, turnsOf } from './turns';

/** The middle of a swing about one of its turns. */
interface Middle {
  at: number;
  level: WeightedValue;
}

/**
 * The level about which a swing goes, from three turns a, b, c in a row: (a c − b²)/(a + c − 2 b). Where the swing falls by the same
 * share from turn to turn that is the very level (Aitken’s Δ²); where it keeps its width, the middle of both sides.
 */
function middleOf([before, here, after]: readonly Turn[]): Middle {
  const [a, b, c] = [before.value.value, here.value.value, after.value.value];
  const across = a + c - 2 * b;
  // Counted from the middle turn, so that nothing is lost far from zero.
  const [p, q] = [a - b, c - b];
  return {
    at: here.time.value,
    level: new LazyWeightedValue(b + (p * q) / across, () =>
      sumOfSpans([
        [before.value.weights, square(q / across)],
        [here.value.weights, 1 - square(q / across) - square(p / across)],
        [after.value.weights, square(p / across)],
      ]),
    ),
  };
}

/** The level at a moment: on the straight line through the two middles beside it, or the two nearest ones. */
function levelAt(middles: readonly Middle[], at: number): WeightedValue {
  if (middles.length === 1) return middles[0].level;
  const beyond = middles.findIndex((middle) => middle.at >= at);
  const right = beyond < 0 ? middles.length - 1 : Math.max(beyond, 1);
  const [a, b] = [middles[right - 1], middles[right]];
  const share = (at - a.at) / (b.at - a.at);
  return new LazyWeightedValue((1 - share) * a.level.value + share * b.level.value, () =>
    sumOfSpans([
      [a.level.weights, 1 - share],
      [b.level.weights, share],
    ]),
  );
}

/** About its middle a sine is straight within this share of the way from trough to peak: what it bends is the same on both sides. */
const straightShare = 0.15;

/** The moment at which a series rises through a level between two readings, and how readings move it and the level. */
function riseBetween(
  series: Series,
  middles: readonly Middle[],
  from: number,
  to: number,
): WeightedValue | null {
  const between = (timeAt(series.sampling, from) + timeAt(series.sampling, to)) / 2;
  const guess = crossingsOf(series, levelAt(middles, between).value, 'rise', from, to + 1).at(-1);
  if (guess === undefined) return null;
  const level = levelAt(middles, guess);
  const at = crossingsOf(series, level.value, 'rise', from, to + 1).at(-1);
  if (at === undefined) return null;
  const half = timeAt(series.sampling, to) - timeAt(series.sampling, from);
  const crossing = crossingNear(series, level.value, at, straightShare * half);
  return new LazyWeightedValue(crossing.value, () => {
    // A crossing comes later by what the level is raised, over the slope there; raising all readings brings it as much earlier.
    const perLevel = -crossing.weights.weights.reduce((sum, weight) => sum + weight, 0);
    return sumOfSpans([
      [crossing.weights, 1],
      [level.weights, perLevel],
    ]);
  });
}

/**
 * The cycles of a swing, from each rise through its middle to the next, and the amplitude of each: half the way from its trough
 * to its peak, by the parabolas through both tops. The middle follows the swing, so that one that dies away or drifts is not
 * counted late. Where no turns stand out, the middle between the least and the greatest reading is taken.
 */
export function swingsOf(series: Series, first: number, past: number): Cycles {
  const turns = turnsOf(series, first, past);
  const middles = turns.slice(1, -1).map((_, k) => middleOf(turns.slice(k, k + 3)));
  if (middles.length === 0) {
    const { minimum, maximum } = describe(series.values, first, past);
    return cyclesOf(series, (minimum + maximum) / 2, first, past);
  }
  const last = turns[turns.length - 1];
  const starts: WeightedValue[] = [];
  turns.forEach((turn, k) => {
    if (turn.kind !== 'peak') return;
    const found = riseBetween(series, middles, k === 0 ? first : turns[k - 1].index, turn.index);
    if (found !== null) starts.push(found);
  });
  if (last.kind === 'trough') {
    const found = riseBetween(series, middles, last.index, past - 1);
    if (found !== null) starts.push(found);
  }
  const amplitudes = starts.slice(1).flatMap((end, k) => {
    const within = turns.filter(({ time }) => time.value > starts[k].value && time.value < end.value);
    const [top, bottom] = [within.find(isPeak), within.find((turn) => !isPeak(turn))];
    return top === undefined || bottom === undefined ? [] : [halfBetween(top, bottom)];
  });
  return { starts, amplitudes };
}

const isPeak = ({ kind }: Turn) => kind === 'peak';

const halfBetween = (top: Turn, bottom: Turn): WeightedValue =>
  new LazyWeightedValue((top.value.value - bottom.value.value) / 2, () =>
    sumOfSpans([
      [top.value.weights, 1 / 2],
      [bottom.value.weights, -1 / 2],
    ]),
  );
