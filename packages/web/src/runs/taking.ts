import { type Run } from '@heuristor/contracts';

/**
 * Runs with one as the server has it now. An answer to a request may have been on its way while the live stream said that the run has
 * ended; that it is still recorded is old then.
 * @param isHeard whether the live stream says it, on which what is newer comes later
 * @returns null where it is old
 */
export function withTaken<R extends Run>(runs: readonly R[], taken: R, isHeard: boolean): R[] | null {
  const known = runs.find(({ id }) => id === taken.id);
  if (known === undefined) return [...runs, taken];
  if (known.state !== 'recording' && taken.state === 'recording' && !isHeard) return null;
  return runs.map((run) => (run.id === taken.id ? taken : run));
}
