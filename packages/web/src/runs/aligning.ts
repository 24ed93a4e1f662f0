import { type WorkingsDocument } from '@heuristor/contracts';
import { type RunMoments } from '../workers/runEvents';

/** By how much a run is moved in time. */
export const shiftOf = ({ shifts }: Pick<WorkingsDocument, 'shifts'>, run: string): number =>
  shifts.find((shift) => shift.run === run)?.by ?? 0;

/** The sheet with runs moved to where they are to lie; one that is not moved is not in its list. */
export function withShifts(workings: WorkingsDocument, moved: ReadonlyMap<string, number>): WorkingsDocument {
  const others = workings.shifts.filter(({ run }) => !moved.has(run));
  const own = [...moved].filter(([, by]) => by !== 0).map(([run, by]) => ({ run, by }));
  return { ...workings, shifts: [...others, ...own] };
}

/**
 * Where runs have to lie so that the same event of each comes at the same moment as in one of them.
 * @param moments of each run, as it lies now
 * @param front the run that stays
 * @param near a moment beside the event that is meant; its number among the others of that run is the number in all runs
 * @returns shifts by run, and the runs in which there is no such event
 */
export function aligned(
  workings: WorkingsDocument,
  moments: readonly RunMoments[],
  front: string,
  near: number,
): { shifts: Map<string, number>; lacking: string[] } | null {
  const own = moments.find(({ runId }) => runId === front)?.moments ?? [];
  if (own.length === 0) return null;
  const number = own.reduce(
    (best, moment, i) => (Math.abs(moment - near) < Math.abs(own[best] - near) ? i : best),
    0,
  );
  const shifts = new Map<string, number>();
  const lacking: string[] = [];
  for (const { runId, moments: found } of moments) {
    const moment = found[number];
    if (moment === undefined) lacking.push(runId);
    else if (runId !== front) shifts.set(runId, shiftOf(workings, runId) + own[number] - moment);
  }
  return { shifts, lacking };
}
