/** In pixels of the window. */
export interface WindowPlace {
  x: number;
  y: number;
}

/** Something that a hand has taken hold of, with what was so when it did; null while nothing is held. */
export type Held<T> = { from: WindowPlace; last: WindowPlace; began: T; hasMoved: boolean } | null;

export type DragEvent<T> =
  | { kind: 'down'; at: WindowPlace; began: T }
  | { kind: 'move' | 'up'; at: WindowPlace }
  /** The pointer was taken away. */
  | { kind: 'lost' };

/** What comes of an event: a move from where the hand took hold and from the move before, an end of moves, or a press without any. */
export type DragOutcome<T> =
  | { kind: 'moved'; began: T; by: WindowPlace; since: WindowPlace }
  | { kind: 'dropped' }
  | { kind: 'pressed' }
  | null;

/**
 * One thing that is dragged.
 * @param shortest pixels from which on a hand drags; what moves less is a press
 */
export function dragStep<T>(held: Held<T>, event: DragEvent<T>, shortest: number): [Held<T>, DragOutcome<T>] {
  if (event.kind === 'down')
    return [{ from: event.at, last: event.at, began: event.began, hasMoved: false }, null];
  if (held === null) return [null, null];
  const { from, last, began } = held;
  if (event.kind === 'move') {
    const { at } = event;
    const by = { x: at.x - from.x, y: at.y - from.y };
    if (!held.hasMoved && Math.hypot(by.x, by.y) < shortest) return [held, null];
    const since = { x: at.x - last.x, y: at.y - last.y };
    return [
      { from, last: at, began, hasMoved: true },
      { kind: 'moved', began, by, since },
    ];
  }
  if (held.hasMoved) return [null, { kind: 'dropped' }];
  return [null, event.kind === 'up' ? { kind: 'pressed' } : null];
}
