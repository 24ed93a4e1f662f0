import { create } from 'zustand';
import { usePresenter } from '../ui/presenter';

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

const foldedForLarge = 'folded-for-presenter';
// Where everything is large, the traces need the room of the column that nobody in the last row reads; it comes back with the usual size.
usePresenter.subscribe(({ large }) => {
  if (large && useSides.getState().left) {
    localStorage.setItem(foldedForLarge, 'true');
    useSides.setState({ left: false });
  } else if (!large && localStorage.getItem(foldedForLarge) !== null) {
    localStorage.removeItem(foldedForLarge);
    useSides.setState({ left: true });
  }
});

/** From which width a column stands beside what it belongs to: where there is much room, or on a tablet, where it takes a third. */
export type Room = 'wide' | 'tablet';

/** Bootstrap's own steps. */
const rooms: Record<Room, MediaQueryList> = {
  wide: window.matchMedia('(min-width: 1200px)'),
  tablet: window.matchMedia('(min-width: 768px)'),
};

/** What the columns of the page that is looked at need. */
const needed: Record<Side, Room> = { left: 'wide', right: 'wide' };

/** Calls when the room for a column comes or goes; as React's `useSyncExternalStore` wants it. */
export const onRoom =
  (room: Room) =>
  (changed: () => void): (() => void) => {
    rooms[room].addEventListener('change', changed);
    return () => rooms[room].removeEventListener('change', changed);
  };

export const isThereRoom = (room: Room): boolean => rooms[room].matches;

/** The page that is looked at has a column that stands from such a width. */
export const needsRoom = (side: Side, room: Room): void => {
  needed[side] = room;
};

/** Whether a column can stand on the page that is looked at; else it lies over it as a sheet. */
export const canStand = (side: Side): boolean => isThereRoom(needed[side]);

/** Folds a column away or brings it back; where there is no room it lies over the traces as a sheet. */
export function toggleSide(side: Side): void {
  if (canStand(side)) useSides.setState((state) => ({ [side]: !state[side] }));
  else useSides.setState(({ sheet }) => ({ sheet: sheet === side ? null : side }));
}

/** A column stands or is folded, as its border was dragged. */
export const setSide = (side: Side, stands: boolean): void => useSides.setState({ [side]: stands });

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
