import { type WeightedValue } from '../calculus/cycles';
import { Refusal } from '../refusal';
import { spanAt } from '../series/noisePath';
import { type Series } from '../series/series';
import { belowZero } from '../units/temperature';
import { printedUnit } from '../units/unit';
import { choiceField, later, levelField, regionField } from './fields';
import { type Context, type EntryBase } from './kind';
import { type SeriesRef } from './references';
import { select } from './selection';
import { unitWords } from './unitWords';

/** What counts as nothing under a series. */
export const baselineFields = {
  baseline: later(
    choiceField('From', [
      { key: 'zero', title: 'zero' },
      { key: 'level', title: 'a level' },
      { key: 'mean', title: 'the mean of a region' },
      { key: 'ends', title: 'the line between its ends' },
    ]),
  ),
  level: later(levelField('Level')),
  meanOf: later(regionField('Mean of')),
} as const;

export interface Baseline {
  baseline: 'zero' | 'level' | 'mean' | 'ends';
  level: number;
  meanOf: string | null;
}

/** What of a baseline means nothing. */
export const idleOfBaseline = ({ baseline }: Pick<Baseline, 'baseline'>): string[] => [
  ...(baseline === 'level' ? [] : ['level']),
  ...(baseline === 'mean' ? [] : ['meanOf']),
];

/** The mean of a series in a region, and what each of its values does to it. @throws Refusal */
export function meanIn(series: Series, region: string | null, context: Context): WeightedValue {
  if (region === null)
    throw new Refusal('Choose the region whose mean is subtracted. Mark one where nothing happens.');
  const { indices, y } = select(context, series, 't', context.region(region));
  const count = indices.length;
  return {
    value: y.reduce((sum, value) => sum + value, 0) / count,
    weights: spanAt(indices, new Float64Array(count).fill(1 / count)),
  };
}

/** The level that counts as nothing, the same everywhere; null where it is zero or no level. @throws Refusal */
export function levelUnder(
  series: Series,
  { baseline, level, meanOf }: Baseline,
  context: Context,
): WeightedValue | null {
  if (baseline === 'level') return { value: level, weights: { first: 0, weights: new Float64Array(0) } };
  return baseline === 'mean' ? meanIn(series, meanOf, context) : null;
}

/** Says from where the heights of a temperature in °C or °F count, where that is the zero of its scale. */
export const scaleNote = ({ symbol, unit }: Series, { baseline }: Pick<Baseline, 'baseline'>): string[] =>
  baseline === 'zero' && belowZero(unit) !== 0
    ? [
        `Heights count from 0 ${printedUnit(unit)}. ${symbol} has its zero at another place in other units; choose a level or the mean of a region where that matters.`,
      ]
    : [];

/** A baseline in words: " from 0.5 N", " from the mean of its rest"; nothing of zero. */
export function baselineWords({
  baseline,
  level,
  of,
  toldIn,
}: Pick<Baseline, 'baseline' | 'level'> & { of: SeriesRef } & Pick<EntryBase, 'toldIn'>): string {
  if (baseline === 'level') return ` from ${String(level).replace('-', '−')}${unitWords(toldIn, of)}`;
  if (baseline === 'mean') return ' from the mean of its rest';
  return baseline === 'ends' ? ' from the line between its ends' : '';
}
