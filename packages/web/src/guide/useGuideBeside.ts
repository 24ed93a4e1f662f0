import { useEffect, useState } from 'react';
import { useInvestigation } from '../investigation/context';
import { roomForBoth, toggleSide, useSides } from '../investigation/sides';

/** The guide beside the notebook: it takes no room as long as nobody has written one, or wants to. */
export function useGuideBeside(): { isThere: boolean; stands: boolean; toggle: () => void } {
  const session = useInvestigation();
  const { right, sheet } = useSides();
  const [hasItems, setHasItems] = useState(false);
  const [isWanted, setWanted] = useState(false);
  useEffect(() => {
    let stop: () => void = () => undefined;
    let isOver = false;
    session.guide().then(
      ({ state }) => {
        if (isOver) return;
        const look = () => setHasItems(state.getState().guide.items.length > 0);
        look();
        stop = state.subscribe(look);
      },
      // The column says what is wrong where somebody opens it.
      () => setWanted(false),
    );
    return () => {
      isOver = true;
      stop();
    };
  }, [session]);
  const isThere = hasItems || isWanted;
  return {
    isThere,
    stands: isThere && (right || sheet === 'right'),
    toggle: () => {
      if (isThere) toggleSide('right');
      else {
        setWanted(true);
        if (!right || !roomForBoth.matches) toggleSide('right');
      }
    },
  };
}
