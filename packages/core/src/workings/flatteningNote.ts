import { type Flattening, flatteningIn } from '../calculus/flattening';
import { timeAt } from '../series/sampling';
import { type Series } from '../series/series';

const worthSaying = 0.01;
const remembered = new WeakMap<object, Map<string, Flattening | null>>();

function flattening(series: Series, start: number, end: number): Flattening | null {
  const key = `${start}/${end}/${series.values.length}`;
  let known = remembered.get(series.lineage);
  if (known === undefined) remembered.set(series.lineage, (known = new Map()));
  if (!known.has(key)) {
    if (known.size > 20) known.clear();
    known.set(key, flatteningIn(series, start, end));
  }
  return known.get(key) ?? null;
}

/** Says by how much the windows behind a derived series flatten what is between two of its readings. */
export function flatteningNote(series: Series, first: number, past: number): string[] {
  const medians = series.made.filter(({ isMedian }) => isMedian === true);
  return [
    ...medians.map(
      ({ symbol, windowPoints }) =>
        `The running median of ${symbol} takes off what is narrower than ${(windowPoints + 1) / 2} readings.`,
    ),
    ...polynomialNote(series, first, past),
  ];
}

function polynomialNote(series: Series, first: number, past: number): string[] {
  const made = series.made.filter(({ isMedian }) => isMedian !== true);
  if (made.length === 0 || past <= first) return [];
  const found = flattening(series, timeAt(series.sampling, first), timeAt(series.sampling, past - 1));
  if (found === null || found.lost < worthSaying) return [];
  const symbols = made.map(({ symbol }) => symbol);
  const windows =
    symbols.length === 1 ? `The window of ${symbols[0]}` : `The windows of ${symbols.join(' and ')}`;
  const takes = symbols.length === 1 ? 'takes' : 'take';
  const advice =
    found.harmless === null
      ? 'Even 3 readings would take more than 1 %: record with a higher rate.'
      : `${found.harmless} readings would take under 1 %.`;
  return [
    `${windows} (${found.windowPoints} readings) ${takes} ${(100 * found.lost).toPrecision(2)} % off what is in this region. ${advice}`,
  ];
}
