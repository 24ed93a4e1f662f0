import { type RefObject, useEffect } from 'react';
import { useSession } from '../investigation/context';
import { type VisibleEntries } from '../workers/visibleEntries';

/** So near to what is seen, numbers are kept up to date: a turn of the wheel brings them there. */
const margin = '60px';

/** Says that an element shows the numbers of entries, for as long as it can be seen. */
export function useShownIn(
  element: RefObject<HTMLElement | null>,
  id: string,
  of: keyof VisibleEntries,
): void {
  const { inSight } = useSession();
  useEffect(() => {
    if (element.current === null) return;
    const by = {};
    const observer = new IntersectionObserver(
      (changes) => {
        if (changes.at(-1)?.isIntersecting === true) inSight.show(by, { [of]: [id] });
        else inSight.hide(by);
      },
      { rootMargin: margin },
    );
    observer.observe(element.current);
    return () => {
      observer.disconnect();
      inSight.hide(by);
    };
  }, [inSight, element, id, of]);
}

/** Says that something which is always seen shows the numbers of entries. */
export function useShown(of: keyof VisibleEntries, ids: readonly string[]): void {
  const { inSight } = useSession();
  const key = ids.join(' ');
  useEffect(() => {
    const by = {};
    inSight.show(by, { [of]: key === '' ? [] : key.split(' ') });
    return () => inSight.hide(by);
  }, [inSight, of, key]);
}
