import { type ReactNode, useSyncExternalStore } from 'react';
import { Offcanvas } from 'react-bootstrap';
import { create } from 'zustand';

type Side = 'left' | 'right';

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
const roomForBoth = window.matchMedia('(min-width: 1200px)');

function onRoom(changed: () => void): () => void {
  roomForBoth.addEventListener('change', changed);
  return () => roomForBoth.removeEventListener('change', changed);
}

/** Folds a column away or brings it back; where there is no room it lies over the traces as a sheet. */
export function toggleSide(side: Side): void {
  if (roomForBoth.matches) useSides.setState((state) => ({ [side]: !state[side] }));
  else useSides.setState(({ sheet }) => ({ sheet: sheet === side ? null : side }));
}

export function SideColumn({ side, title, children }: { side: Side; title: string; children: ReactNode }) {
  const isSheet = useSides((state) => state.sheet === side);
  const stands = useSides((state) => state[side]);
  const hasRoom = useSyncExternalStore(onRoom, () => roomForBoth.matches);
  if (hasRoom)
    return (
      <aside className={`side ${side} ${stands ? '' : 'folded'}`} aria-label={title}>
        {children}
      </aside>
    );
  return (
    <Offcanvas
      placement={side === 'left' ? 'start' : 'end'}
      show={isSheet}
      onHide={() => useSides.setState({ sheet: null })}
      className={`side ${side}`}
      aria-label={title}
    >
      <Offcanvas.Header closeButton closeLabel={`Close ${title.toLowerCase()}`}>
        <Offcanvas.Title>{title}</Offcanvas.Title>
      </Offcanvas.Header>
      <Offcanvas.Body>{children}</Offcanvas.Body>
    </Offcanvas>
  );
}
