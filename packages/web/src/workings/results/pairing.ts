import { type WorkingsDocument } from '@heuristor/contracts';
import { type ResultRef, canConvert, partsOfResultRef } from '@heuristor/core';
import { type ShownOutcome } from '../../workers/protocol';
import { mainResults } from '../edits';
import { usersOf } from '../entries/users';

/**
 * Two results that belong together, for an entry that holds one against the other: the last two of one kind and unit that speak of
 * different stretches, or else the last that have one unit; all of them in the order of the sheet where there are no such two.
 */
export function pairedResults(
  { entries }: Pick<WorkingsDocument, 'entries'>,
  outcomes: Readonly<Record<string, ShownOutcome>>,
): ResultRef[] {
  const all = mainResults({ entries }, outcomes);
  const about = all.map((reference) => {
    const { id, key } = partsOfResultRef(reference);
    const entry = entries.find((other) => other.id === id);
    const outcome = outcomes[id];
    const unit =
      outcome?.kind === 'results' ? outcome.results.find((one) => one.key === key)?.unit : undefined;
    return {
      reference,
      /** What is worked out from it says nothing new beside it. */
      users: usersOf({ entries }, id),
      id,
      key,
      kind: entry?.kind,
      of: entry !== undefined && 'of' in entry ? entry.of : null,
      unit,
    };
  });
  let best: { pair: ResultRef[]; worth: number } | null = null;
  about.forEach((second, j) =>
    about.slice(0, j).forEach((first) => {
      if (first.unit === undefined || second.unit === undefined || !canConvert(first.unit, second.unit))
        return;
      if (
        first.users.some((user) => user.id === second.id) ||
        second.users.some((user) => user.id === first.id)
      )
        return;
      const isAlike = first.kind === second.kind && first.key === second.key && first.of === second.of;
      const isHeldAgainst = (first.kind === 'constant') !== (second.kind === 'constant');
      const isPlain = first.kind === 'constant' && second.kind === 'constant';
      const worth = isAlike && !isPlain ? 3 : isHeldAgainst ? 2 : isPlain ? 0 : 1;
      // What is accepted stands second.
      const pair = first.kind === 'constant' && isHeldAgainst ? [second, first] : [first, second];
      if (best === null || worth >= best.worth)
        best = { pair: pair.map(({ reference }) => reference), worth };
    }),
  );
  return (best as { pair: ResultRef[] } | null)?.pair ?? all;
}
