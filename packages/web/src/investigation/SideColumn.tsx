import { type ReactNode, useSyncExternalStore } from 'react';
import { Offcanvas } from 'react-bootstrap';
import { type Side, closeSheet, onRoom, roomForBoth, sheetGone, useSides } from './sides';

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
      onHide={closeSheet}
      onExited={sheetGone}
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
