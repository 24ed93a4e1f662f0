import { useState } from 'react';
import { canStand, toggleSide, useSides } from '../investigation/sides';
import { useHasGuide } from './useGuideItems';

/** The guide beside the notebook: it takes no room as long as nobody has written one, or wants to. */
export function useGuideBeside(): { isThere: boolean; stands: boolean; toggle: () => void } {
  const { right, sheet } = useSides();
  const hasItems = useHasGuide();
  const [isWanted, setWanted] = useState(false);
  const isThere = hasItems || isWanted;
  return {
    isThere,
    stands: isThere && (right || sheet === 'right'),
    toggle: () => {
      if (isThere) toggleSide('right');
      else {
        setWanted(true);
        if (!right || !canStand('right')) toggleSide('right');
      }
    },
  };
}
