import { type Run } from '@heuristor/contracts';

export const presentRuns = (runs: readonly Run[]): Run[] => runs.filter((run) => !run.removed);
export const shownRuns = (runs: readonly Run[]): Run[] => presentRuns(runs).filter((run) => run.shown);
export const recordingRun = (runs: readonly Run[]): Run | undefined =>
  runs.find((run) => run.state === 'recording');

/** The run in front: the chosen one while it is shown, else the newest that is. */
export function frontRun(runs: readonly Run[], chosen: string | null): Run | undefined {
  const shown = shownRuns(runs);
  return shown.find(({ id }) => id === chosen) ?? shown[shown.length - 1];
}
