import { type Unit, conversionBetween, sameUnit } from '@heuristor/core';
import { type Sight } from '../../workers/protocol';
import { axisKey } from './scaling';
import { type Picture } from '../picture';
import { type View } from '../../investigation/state';

type Axes = Pick<Picture, 'frame' | 'traces'>;
type Set = Pick<View, 'sight' | 'scales'>;

/** A part of an axis in another unit; none where that measures something else. */
function inUnit({ from, to }: Sight, before: Unit, now: Unit): Sight | null {
  const conversion = conversionBetween(before, now);
  if (conversion === null) return null;
  const ends = [from, to].map((end) => end * conversion.factor + conversion.offset);
  return { from: Math.min(...ends), to: Math.max(...ends) };
}

/**
 * What a hand has set of the axes, in the units that these have now: a run in another unit changes what stands at them, and not what
 * is looked at. Null where nothing of it changes.
 * @param isSameAxis whether the horizontal axis still shows the same quantity
 */
export function setInUnitsOf(
  now: Axes,
  before: Axes,
  { sight, scales }: Set,
  isSameAxis: boolean,
): Partial<Set> | null {
  const patch: { -readonly [K in keyof Set]?: Set[K] } = {};
  const [was, is] = [before.frame?.horizontal.unit, now.frame?.horizontal.unit];
  if (isSameAxis && sight !== null && was !== undefined && is !== undefined && !sameUnit(was, is))
    patch.sight = inUnit(sight, was, is);
  const changed = now.traces.flatMap((trace) => {
    const stood = before.traces.find(({ key }) => key === trace.key);
    return (['left', 'right'] as const).flatMap((side) => {
      const key = axisKey(trace.key, side);
      const [own, old] = side === 'left' ? [trace, stood] : [trace.right, stood?.right];
      const set = scales[key] as Sight | undefined;
      if (set === undefined || own === null || old == null || sameUnit(own.unit, old.unit)) return [];
      return [{ key, range: inUnit(set, old.unit, own.unit) }];
    });
  });
  if (changed.length > 0) {
    const others = Object.entries(scales).filter(([key]) => !changed.some((one) => one.key === key));
    const kept = changed.flatMap(({ key, range }) => (range === null ? [] : [[key, range] as const]));
    patch.scales = Object.fromEntries([...others, ...kept]);
  }
  return Object.keys(patch).length === 0 ? null : patch;
}
