import { useCallback, useMemo, useSyncExternalStore } from 'react';
import type * as Y from 'yjs';
import { type NamedMark, markPrefix, marksIn } from './marks';

/** The marks on the photograph of a block; they follow whoever changes them. */
export function useMarks(block: Y.Map<unknown> | undefined): readonly NamedMark[] {
  const stored = useSyncExternalStore(
    useCallback(
      (changed: () => void) => {
        block?.observe(changed);
        return () => block?.unobserve(changed);
      },
      [block],
    ),
    () => JSON.stringify([...(block?.entries() ?? [])].filter(([name]) => name.startsWith(markPrefix))),
  );
  return useMemo(() => marksIn(JSON.parse(stored) as [string, unknown][]), [stored]);
}
