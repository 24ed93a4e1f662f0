import { type Entry } from '@heuristor/core';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useFrontRun, usePicture } from '../../investigation/context';
import { shownRuns } from '../../runs/runs';
import { type SeenRun } from '../../runs/seenRun';
import { type ShownOutcome } from '../../workers/protocol';
import { type RunOutcome } from './OtherRuns';

interface EntryOutcomes {
  front: SeenRun;
  own: ShownOutcome | undefined;
  /** The other runs that are shown. */
  others: RunOutcome[];
}

/** What an entry says of the run in front and of the others that are shown; null where there is no run. */
export function useEntryOutcomes({ id }: Entry): EntryOutcomes | null {
  const front = useFrontRun();
  const shown = useDocuments(useShallow(({ runs }) => shownRuns(runs)));
  const outcomes = usePicture(useShallow((picture) => shown.map((run) => picture.outcomes[run.id]?.[id])));
  if (front === undefined) return null;
  return {
    front,
    own: outcomes[shown.findIndex((run) => run.id === front.id)],
    others: shown.map((run, i) => ({ run, outcome: outcomes[i] })).filter(({ run }) => run.id !== front.id),
  };
}

/** A part of what an entry says of the run in front; it is made anew only when that part changes. */
export function useOwnOutcome<T>({ id }: Pick<Entry, 'id'>, part: (own: ShownOutcome | undefined) => T): T {
  const front = useFrontRun();
  return usePicture(({ outcomes }) => part(outcomes[front?.id ?? '']?.[id]));
}
