/** An interval across a trace, in pixels. */
export interface Room {
  left: number;
  right: number;
}

/** What is narrower holds no note. */
const narrowest = 60;

/**
 * The room for notes beside what stands in the same row already: what is free at the right end, where the eye looks for them, else
 * the widest that is free; null where there is none.
 */
export function roomBeside(taken: readonly Room[], { left, right }: Room): Room | null {
  const sorted = taken.filter((one) => one.right > left && one.left < right).sort((a, b) => a.left - b.left);
  const free: Room[] = [];
  let from = left;
  for (const one of sorted) {
    if (one.left > from) free.push({ left: from, right: one.left });
    from = Math.max(from, one.right);
  }
  if (from < right) free.push({ left: from, right });
  const width = (room: Room) => room.right - room.left;
  const last = free.at(-1);
  // A third of the row tells a note; less of it only where nothing else does.
  if (last?.right === right && width(last) >= (right - left) / 3) return last;
  const widest = free.reduce<Room | null>(
    (best, room) => (best === null || width(room) > width(best) ? room : best),
    null,
  );
  return widest === null || width(widest) < narrowest ? null : widest;
}
