import { type RefObject, useLayoutEffect, useState } from 'react';

/** How wide an element is, in pixels; 0 before it stands. */
export function useWidth(element: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const { current } = element;
    if (current === null) return;
    setWidth(current.clientWidth);
    const observer = new ResizeObserver(() => setWidth(current.clientWidth));
    observer.observe(current);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
