import { type RefObject, useEffect } from 'react';

/** Gives the focus to what lies over the page as it opens; as it closes, whatever had it before has it again. */
export function useFocusInside(panel: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const before = document.activeElement;
    panel.current?.focus();
    return () => {
      if (before instanceof HTMLElement && before.isConnected) before.focus();
    };
  }, [panel]);
}
