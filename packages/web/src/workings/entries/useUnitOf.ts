import { type EntryBase, type SeriesRef, parseUnit, printedUnit } from '@heuristor/core';
import { useDocuments, useFrontRun, usePicture, useShownPage } from '../../investigation/context';
import { unitSeen } from '../../traces/unitSeen';

/** The unit in which an entry tells numbers of a series, in print: where it says none yet, the one in which a person sees it. */
export function useUnitOf(of: SeriesRef | null, { toldIn }: Pick<EntryBase, 'toldIn'>): string {
  const front = useFrontRun();
  const runs = useDocuments((documents) => documents.runs);
  const { horizontal } = useShownPage();
  const seen = usePicture((picture) =>
    of === null ? null : unitSeen(of, { picture, runs, front, horizontal }),
  );
  const code = of === null ? null : (toldIn?.[of] ?? seen);
  return code === null ? '' : printedUnit(parseUnit(code));
}
