import { type RecorderStatus, type SpotStatus } from '@heuristor/contracts';

interface Doing {
  recorder: RecorderStatus;
  spots: SpotStatus;
  runs: readonly { id: string }[];
}

/**
 * What the server was doing before the connection broke, and does no more though nothing came of it: a restart ends what waits or
 * sweeps, and another screen may have ended it meanwhile. Said in words, or null.
 */
export function endedMeanwhile(before: Doing, now: Doing): string | null {
  const hasWaited = before.recorder.phase === 'waiting' || before.recorder.phase === 'countdown';
  const isNothingNew = now.runs.length === before.runs.length;
  if (hasWaited && now.recorder.phase === 'idle' && isNothingNew)
    return 'The run that was waiting to begin was cancelled: the server was restarted, or somebody cancelled it. Press Record again.';
  if (before.spots.phase === 'sweeping' && now.spots.phase === 'idle')
    return `The sweep ended after ${before.spots.taken} of ${before.spots.planned} readings: the server was restarted, or somebody ended it. What was read is kept.`;
  return null;
}
