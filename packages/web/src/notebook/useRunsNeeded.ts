import { type Run } from '@heuristor/contracts';
import { useEffect } from 'react';
import { useNotebook } from './context';

/** What the workings say of these runs is worked out as long as this is shown. */
export function useRunsNeeded(runs: readonly Run[]): void {
  const notebook = useNotebook();
  const ids = runs.map(({ id }) => id).join();
  useEffect(() => {
    if (ids === '') return undefined;
    const stops = ids.split(',').map((id) => notebook.values.need(id));
    return () => stops.forEach((stop) => stop());
  }, [notebook, ids]);
}
