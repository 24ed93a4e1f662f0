import { type Run, type RunChoice, type RunLook, lookOf } from '@heuristor/contracts';

/** A run as the owner of the sheet looks at it. */
export type SeenRun = Run & RunLook;

/** Runs as a sheet looks at them; one that is looked at as before stays the same. */
export const seenBy = (runs: readonly (Run & Partial<RunLook>)[], choices: readonly RunChoice[]): SeenRun[] =>
  runs.map((run) => {
    const look = lookOf(run, choices);
    return isLookedAt(run, look) ? run : { ...run, ...look };
  });

const isLookedAt = (run: Run & Partial<RunLook>, look: RunLook): run is SeenRun =>
  run.shown === look.shown && run.style === look.style && run.keepPinned === look.keepPinned;
