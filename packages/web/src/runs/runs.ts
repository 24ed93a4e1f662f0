import { type Run } from '@heuristor/contracts';
import { type SeenRun } from './seenRun';

export const presentRuns = <R extends Run>(runs: readonly R[]): R[] => runs.filter((run) => !run.removed);
export const shownRuns = (runs: readonly SeenRun[]): SeenRun[] =>
  presentRuns(runs).filter((run) => run.shown);
export const recordingRun = (runs: readonly Run[]): Run | undefined =>
  runs.find((run) => run.state === 'recording');

/** The run in front: the chosen one while it is shown, else the newest that is. */
export function frontRun(runs: readonly SeenRun[], chosen: string | null): SeenRun | undefined {
  const shown = shownRuns(runs);
  return shown.find(({ id }) => id === chosen) ?? shown[shown.length - 1];
}
