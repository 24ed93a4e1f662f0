import { useCallback, useSyncExternalStore } from 'react';
import type * as Y from 'yjs';
import { typing } from './document/step';
import { typeInto } from './document/sharedText';

/** A shared text of one line, as it reads now, and how it is changed. */
export function useSharedText(shared: Y.Text | null): [string, (to: string) => void] {
  const text = useSyncExternalStore(
    useCallback(
      (changed: () => void) => {
        shared?.observe(changed);
        return () => shared?.unobserve(changed);
      },
      [shared],
    ),
    () => shared?.toString() ?? '',
  );
  return [text, (to) => shared !== null && typeInto(shared, to, typing)];
}

/** What stands in a block under a name; it follows changes. */
export function useBlockField(block: Y.Map<unknown> | undefined, name: string): unknown {
  return useSyncExternalStore(
    useCallback(
      (changed: () => void) => {
        block?.observe(changed);
        return () => block?.unobserve(changed);
      },
      [block],
    ),
    () => block?.get(name),
  );
}
