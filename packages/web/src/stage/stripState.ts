import { create } from 'zustand';

type StripPlace = 'beside' | 'under';

interface StripState {
  isOpen: boolean;
  place: StripPlace;
}

const key = 'stage-strip';

/** Whether the apparatus stands on the bench, and where. */
export const useStrip = create<StripState>(() => ({
  isOpen: false,
  place: localStorage.getItem(key) === 'under' ? 'under' : 'beside',
}));

export const openStrip = (isOpen: boolean): void => useStrip.setState({ isOpen });

export const toggleStrip = (): void => useStrip.setState(({ isOpen }) => ({ isOpen: !isOpen }));

export function placeStrip(place: StripPlace): void {
  localStorage.setItem(key, place);
  useStrip.setState({ place });
}
