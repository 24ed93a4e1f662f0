import { type RefObject, useEffect } from 'react';

/**
 * Tells the traces that a view lies over them, so that what they are held by is hidden. A selector of the style sheet could see
 * it too, and would be looked through at every change of the page.
 */
export function useCovering(view: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const traces = view.current?.closest<HTMLElement>('.stage-of-traces');
    if (traces == null) return;
    traces.dataset.covered = '';
    return () => {
      delete traces.dataset.covered;
    };
  }, [view]);
}
