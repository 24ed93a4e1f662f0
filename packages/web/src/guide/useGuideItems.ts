import { type GuideItem } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { useInvestigation } from '../investigation/context';

/** What stands in the guide of the investigation that is open; null as long as that is not known. */
export function useGuideItems(): readonly GuideItem[] | null {
  const session = useInvestigation();
  const [items, setItems] = useState<readonly GuideItem[] | null>(null);
  useEffect(() => {
    let stop: () => void = () => undefined;
    let isOver = false;
    session.guide().then(
      ({ state }) => {
        if (isOver) return;
        const look = () => setItems(state.getState().guide.items);
        look();
        stop = state.subscribe(look);
      },
      // Whoever opens the guide is told what is wrong.
      () => isOver || setItems([]),
    );
    return () => {
      isOver = true;
      stop();
    };
  }, [session]);
  return items;
}

/** Whether anything stands in it. */
export const useHasGuide = (): boolean => (useGuideItems()?.length ?? 0) > 0;
