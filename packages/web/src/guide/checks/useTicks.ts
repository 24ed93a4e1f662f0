import { useCallback, useSyncExternalStore } from 'react';
import { useNotebook } from '../../notebook/context';

/** Checks that were met by something that has passed, by their ids; they stay so in one’s own notebook. */
export function useTicks(): { ticked: ReadonlySet<string>; tick: (id: string) => void } {
  const { document, mayWrite } = useNotebook();
  const { ticks } = document;
  const ids = useSyncExternalStore(
    useCallback(
      (changed: () => void) => {
        ticks.observe(changed);
        return () => ticks.unobserve(changed);
      },
      [ticks],
    ),
    () => [...ticks.keys()].sort().join(),
  );
  const tick = useCallback(
    (id: string) => {
      if (mayWrite) ticks.set(id, true);
    },
    [ticks, mayWrite],
  );
  return { ticked: new Set(ids === '' ? [] : ids.split(',')), tick };
}
