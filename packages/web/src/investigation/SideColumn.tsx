import { type ReactNode, useEffect, useSyncExternalStore } from 'react';
import { Offcanvas } from 'react-bootstrap';
import {
  type Room,
  type Side,
  closeSheet,
  isThereRoom,
  needsRoom,
  onRoom,
  sheetGone,
  useSides,
} from './sides';

interface Props {
  side: Side;
  title: string;
  /** From which width it stands on the page. */
  room?: Room;
  children: ReactNode;
}

/** Whether there is as much room as that. */
export const useRoom = (room: Room): boolean => useSyncExternalStore(onRoom(room), () => isThereRoom(room));

/** A column beside what the page shows; where there is no room for it, it lies over the page as a sheet. */
export function SideColumn({ side, title, room = 'wide', children }: Props) {
  const isSheet = useSides((state) => state.sheet === side);
  const stands = useSides((state) => state[side]);
  const hasRoom = useRoom(room);
  useEffect(() => needsRoom(side, room), [side, room]);
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
