import { type PointerEvent, useRef } from 'react';
import { type DragEvent, type Held, type WindowPlace, dragStep } from './drag';

interface Ways<T> {
  /** Pixels from which on a hand drags. */
  shortest: number;
  /** A pointer goes down: what is to be remembered of it; null where it takes hold of nothing. */
  begin: (event: PointerEvent<HTMLElement>) => T | null;
  /** @param by from where it went down, `since` from the move before, in pixels */
  move: (began: T, moved: { by: WindowPlace; since: WindowPlace }, event: PointerEvent<HTMLElement>) => void;
  /** The hand lets go of what it has moved. */
  drop: () => void;
  /** It went down and up without moving. */
  press?: () => void;
}

/** Makes an element something to drag. Its events go no further while it is held. */
export function useDrag<T>({ shortest, begin, move, drop, press }: Ways<T>) {
  const held = useRef<Held<T>>(null);
  const happen = (event: DragEvent<T>) => {
    const [next, outcome] = dragStep(held.current, event, shortest);
    held.current = next;
    return outcome;
  };
  const end = (outcome: ReturnType<typeof happen>) => {
    if (outcome?.kind === 'dropped') drop();
    else if (outcome?.kind === 'pressed') press?.();
  };
  const at = ({ clientX, clientY }: PointerEvent): WindowPlace => ({ x: clientX, y: clientY });
  return {
    isHeld: () => held.current !== null,
    handlers: {
      onPointerDown: (event: PointerEvent<HTMLElement>) => {
        const began = begin(event);
        if (began === null) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        happen({ kind: 'down', at: at(event), began });
      },
      onPointerMove: (event: PointerEvent<HTMLElement>) => {
        if (held.current === null) return;
        event.stopPropagation();
        const outcome = happen({ kind: 'move', at: at(event) });
        if (outcome?.kind === 'moved') move(outcome.began, outcome, event);
      },
      onPointerUp: (event: PointerEvent<HTMLElement>) => end(happen({ kind: 'up', at: at(event) })),
      onPointerCancel: () => end(happen({ kind: 'lost' })),
      onLostPointerCapture: () => end(happen({ kind: 'lost' })),
    },
  };
}
