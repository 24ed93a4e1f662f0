import { type WeightedValue } from '../../calculus/cycles';
import { type Turn, turnsOf } from '../../calculus/turns';
import { Refusal } from '../../refusal';
import { type NoisePath, addSpans, scaledSpan, sumOfSpans } from '../../series/noisePath';
import { timed } from '../../series/sampling';
import { type Series, pathsOf, windowedBehind, withEffect } from '../../series/series';
import { intervalUnit } from '../../units/temperature';
import { type Unit } from '../../units/unit';
import { choiceField, seriesField } from '../fields';
import { defineKind } from '../kind';

/**
 * How wide a series swings, from turn to turn: its peaks, its troughs, or half the way between each turn and the middle of those
 * before and after it, which leaves a slow drift out.
 */
export const envelope = defineKind({
  kind: 'envelope',
  title: 'envelope',
  yields: 'series',
  drawnOver: true,
  offered: 'series',
  offers: [{ title: 'Envelope of', preset: {} }],
  fields: {
    of: seriesField(),
    side: choiceField('Through', [
      { key: 'amplitude', title: 'its amplitudes' },
      { key: 'peaks', title: 'its peaks' },
      { key: 'troughs', title: 'its troughs' },
    ]),
  },
  customaryName: (of) => `${of}_max`,
  sentence: ({ of, side }, nameOf) =>
    side === 'amplitude' ? `amplitude of ${nameOf(of)}, turn by turn` : `${side} of ${nameOf(of)}`,
  evaluate({ name, of, side }, context) {
    const series = context.series(of);
    const turns = turnsOf(series);
    const points = side === 'amplitude' ? amplitudesOf(turns) : sideOf(turns, side);
    if (points.length < 2)
      throw new Refusal(
        `${series.symbol} does not swing: an envelope needs two ${side === 'amplitude' ? 'whole swings' : side}, and ${points.length === 1 ? 'one was' : 'none was'} found.`,
      );
    return {
      kind: 'series',
      series: seriesThrough(
        series,
        name,
        points,
        side === 'amplitude' ? intervalUnit(series.unit) : series.unit,
      ),
      notes: [`${points.length} turns. Their heights are those of parabolas through their tops.`],
    };
  },
});

interface Point {
  at: number;
  weighted: WeightedValue;
}

const sideOf = (turns: readonly Turn[], side: 'peaks' | 'troughs'): Point[] =>
  turns
    .filter(({ kind }) => (kind === 'peak' ? 'peaks' : 'troughs') === side)
    .map(({ time, value }) => ({ at: time.value, weighted: value }));

function amplitudesOf(turns: readonly Turn[]): Point[] {
  return turns.slice(1, -1).map(({ kind, time, value }, k): Point => {
    const [before, after] = [turns[k], turns[k + 2]];
    const sign = kind === 'peak' ? 0.5 : -0.5;
    // The middle of those beside it, at the moment of this one.
    const share = (time.value - before.time.value) / (after.time.value - before.time.value);
    const middle = (1 - share) * before.value.value + share * after.value.value;
    return {
      at: time.value,
      weighted: {
        value: sign * (value.value - middle),
        weights: [
          scaledSpan(value.weights, sign),
          scaledSpan(before.value.weights, -sign * (1 - share)),
          scaledSpan(after.value.weights, -sign * share),
        ].reduce((sum, one) => addSpans(sum, one)),
      },
    };
  });
}

/** Values at times of their own, each a weighed sum of values of another series. */
function seriesThrough(series: Series, symbol: string, points: readonly Point[], unit: Unit): Series {
  const through = (path: NoisePath): NoisePath => ({
    root: path.root,
    independent: false,
    row: (i) => path.spread(points[i].weighted.weights),
    isOrdinary: () => false,
    spread: ({ first, weights }) => {
      const sum = sumOfSpans(
        [...weights.keys()]
          .filter((i) => weights[i] !== 0)
          .map((i) => [points[first + i].weighted.weights, weights[i]]),
      );
      return path.spread(sum);
    },
  });
  const [noise, ...further] = pathsOf(series).map(through);
  const { shared } = series;
  const summed = (effect: Float64Array) =>
    Float64Array.from(points, ({ weighted: { weights } }) =>
      weights.weights.reduce(
        (sum, weight, i) => sum + (weight === 0 ? 0 : weight * effect[weights.first + i]),
        0,
      ),
    );
  return {
    symbol,
    quantity: series.quantity,
    unit,
    timeUnit: series.timeUnit,
    sampling: timed(Float64Array.from(points, ({ at }) => at)),
    values: Float64Array.from(points, ({ weighted }) => weighted.value),
    noise: noise ?? null,
    ...(further.length === 0 ? {} : { further }),
    made: series.made,
    windowed: windowedBehind([series]),
    lineage: {},
    settled: 0,
    ...(shared === undefined ? {} : { shared: shared.map((one) => withEffect(one, summed(one.effect))) }),
  };
}
