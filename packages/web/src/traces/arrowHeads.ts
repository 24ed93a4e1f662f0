interface Point {
  x: number;
  y: number;
}

/** Over so many pixels a direction is drawn: noise from point to point has none. */
const reach = 14;

/** More heads on one way would hide it. */
const mostHeads = 12;

/**
 * Heads along a way of points, so far apart or farther: where they stand, and which way they point. A point without a height breaks
 * the way. Where the way only trembles about a place, nothing points anywhere.
 */
export function headsAlong(points: readonly Point[], least: number): { at: Point; angle: number }[] {
  const heads: { at: Point; angle: number }[] = [];
  const apart = Math.max(least, lengthOf(points) / mostHeads);
  // The first one comes early, so that a short way has one too.
  let left = apart / 2;
  let anchor: Point | null = null;
  for (const point of points) {
    if (Number.isNaN(point.y)) {
      anchor = null;
      continue;
    }
    anchor ??= point;
    const [dx, dy] = [point.x - anchor.x, point.y - anchor.y];
    const gone = Math.hypot(dx, dy);
    if (gone < reach) continue;
    left -= gone;
    if (left <= 0) {
      heads.push({ at: { x: anchor.x + dx / 2, y: anchor.y + dy / 2 }, angle: Math.atan2(dy, dx) });
      left = apart;
    }
    anchor = point;
  }
  return heads;
}

/** Length of a way, over its gaps none. */
function lengthOf(points: readonly Point[]): number {
  let length = 0;
  for (let i = 1; i < points.length; i++) {
    const step = Math.hypot(points[i].x - points[i - 1].x, points[i].y - points[i - 1].y);
    if (!Number.isNaN(step)) length += step;
  }
  return length;
}
