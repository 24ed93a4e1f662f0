import { type WorkingsDocument } from '@heuristor/contracts';
import isEqual from 'fast-deep-equal';

/**
 * A list of things that have names, in which a step is taken back: only what the step has changed, and only where it still stands as
 * the step has left it. What somebody else has added or changed since then stays.
 */
export function partsBack<T>(
  present: readonly T[],
  after: readonly T[],
  before: readonly T[],
  nameOf: (part: T) => string,
): { parts: T[]; isWhole: boolean } {
  const named = (parts: readonly T[]) => new Map(parts.map((part) => [nameOf(part), part]));
  const [now, left, wanted] = [named(present), named(after), named(before)];
  let isWhole = true;
  const parts = [...present];
  const placeOf = (name: string) => parts.findIndex((part) => nameOf(part) === name);
  for (const name of new Set([...left.keys(), ...wanted.keys()])) {
    const [from, to, here] = [left.get(name), wanted.get(name), now.get(name)];
    if (isEqual(from, to)) continue;
    if (!isEqual(here, from)) {
      isWhole = false;
      continue;
    }
    if (to === undefined) parts.splice(placeOf(name), 1);
    else if (here !== undefined) parts[placeOf(name)] = to;
    else parts.splice(Math.min(before.indexOf(to), parts.length), 0, to);
  }
  // A step that has moved something puts it back where nobody has moved anything since.
  const names = (some: readonly T[]) => some.map(nameOf);
  const isOnlyMoved = isEqual([...names(after)].sort(), [...names(before)].sort());
  if (isOnlyMoved && !isEqual(names(after), names(before)) && isEqual(names(present), names(after)))
    parts.sort((a, b) => names(before).indexOf(nameOf(a)) - names(before).indexOf(nameOf(b)));
  return { parts, isWhole };
}

/**
 * The sheet with one step taken back, or taken again.
 * @param present as it stands, perhaps with what others have done since
 * @param after what the step had made of it
 * @param before what it was before the step
 * @returns it, and whether all of the step could be taken back
 */
export function steppedBack(
  present: WorkingsDocument,
  after: WorkingsDocument,
  before: WorkingsDocument,
): { document: WorkingsDocument; isWhole: boolean } {
  if (present === after || isEqual(present, after)) return { document: before, isWhole: true };
  const entries = partsBack(present.entries, after.entries, before.entries, ({ id }) => id);
  const pages = partsBack(present.pages, after.pages, before.pages, ({ id }) => id);
  const aside = partsBack(
    present.aside,
    after.aside,
    before.aside,
    ({ run, channel }) => `${run}/${channel}`,
  );
  const shifts = partsBack(present.shifts, after.shifts, before.shifts, ({ run }) => run);
  const runs = partsBack(present.runs, after.runs, before.runs, ({ run }) => run);
  return {
    document: {
      ...present,
      entries: entries.parts,
      // A sheet has a page at the least.
      pages: pages.parts.length > 0 ? pages.parts : present.pages,
      aside: aside.parts,
      shifts: shifts.parts,
      runs: runs.parts,
    },
    isWhole: [entries, pages, aside, shifts, runs].every((part) => part.isWhole),
  };
}
