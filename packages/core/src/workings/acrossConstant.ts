import { type EntryOfKind, type Workings } from './entries';
import { sliderEnds } from './kinds/constant';
import { Refusal } from '../refusal';

/**
 * Values of a constant, evenly from one end to the other, both included.
 * @param ends as they are typed, in the unit of the constant; '' for those between which it slides
 * @throws Refusal where there are no ends
 */
export function valuesAcross(constant: EntryOfKind<'constant'>, ends: string, count: number): number[] {
  const found = sliderEnds(ends.trim() === '' ? constant : { ...constant, ends });
  if (found === null)
    throw new Refusal(
      `${constant.name === '' ? 'This constant' : constant.name} has no uncertainty. Type between which values it goes, like 0.2 to 0.4.`,
    );
  const { low, high } = found;
  return Array.from({ length: count }, (_, i) => low + ((high - low) * i) / (count - 1));
}

/** Workings in which a constant has another value, and is certain: what follows is what it would be if that were so. */
export const withConstantAt = <W extends Workings>(workings: W, id: string, value: number): W => ({
  ...workings,
  entries: workings.entries.map((entry) =>
    entry.id === id && entry.kind === 'constant'
      ? { ...entry, value, uncertainty: 0, shift: 0, repeats: '' }
      : entry,
  ),
});
