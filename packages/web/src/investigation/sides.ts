import { create } from 'zustand';

export type Side = 'left' | 'right';

interface SidesState {
  /** Whether the columns stand beside the traces, where there is room for them. */
  left: boolean;
  right: boolean;
  /** The one that lies over the traces, where there is not. */
  sheet: Side | null;
}

const key = 'folded-sides';
const folded = (localStorage.getItem(key) ?? '').split(',');

export const useSides = create<SidesState>(() => ({
  left: !folded.includes('left'),
  right: !folded.includes('right'),
  sheet: null,
}));
useSides.subscribe(({ left, right }) =>
  localStorage.setItem(key, [...(left ? [] : ['left']), ...(right ? [] : ['right'])].join()),
);

/** Width from which both columns stand beside the traces; Bootstrap's own step. */
export const roomForBoth = window.matchMedia('(min-width: 1200px)');

/** Calls when that comes or goes; as React's `useSyncExternalStore` wants it. */
export function onRoom(changed: () => void): () => void {
  roomForBoth.addEventListener('change', changed);
  return () => roomForBoth.removeEventListener('change', changed);
}

/** Folds a column away or brings it back; where there is no room it lies over the traces as a sheet. */
export function toggleSide(side: Side): void {
  if (roomForBoth.matches) useSides.setState((state) => ({ [side]: !state[side] }));
  else useSides.setState(({ sheet }) => ({ sheet: sheet === side ? null : side }));
}

/** Puts the sheet away that lies over the traces. */
export const closeSheet = (): void => useSides.setState({ sheet: null });

let next: () => void = () => undefined;

/** Does something that is seen on the page: at once, or where a sheet lies over it when that is gone. */
export function onPage(go: () => void): void {
  if (useSides.getState().sheet === null) go();
  else {
    next = go;
    closeSheet();
  }
}

/** A sheet is gone. */
export function sheetGone(): void {
  const go = next;
  next = () => undefined;
  // It gives the focus back first.
  setTimeout(go);
}
