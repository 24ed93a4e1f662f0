import { type PacePoint } from './target';

/**
 * The fewest points of a drawn line that stay within a tolerance of it (Douglas and Peucker, The Canadian Cartographer 10
 * (1973) 112; distances are taken along the value, as a line over time has no other).
 */
export function simplified(points: readonly PacePoint[], tolerance: number): PacePoint[] {
  const kept = new Set([0, points.length - 1]);
  const open: [number, number][] = [[0, points.length - 1]];
  for (let span = open.pop(); span !== undefined; span = open.pop()) {
    const [first, last] = span;
    const [a, b] = [points[first], points[last]];
    let [worst, place] = [tolerance, -1];
    for (let i = first + 1; i < last; i++) {
      const { t, value } = points[i];
      const off = Math.abs(value - (a.value + ((t - a.t) / (b.t - a.t)) * (b.value - a.value)));
      if (off > worst) [worst, place] = [off, i];
    }
    if (place < 0) continue;
    kept.add(place);
    open.push([first, place], [place, last]);
  }
  return points.filter((_, i) => kept.has(i));
}

/** The same with at most so many points: the tolerance grows until they are few enough. */
export function simplifiedTo(points: readonly PacePoint[], most: number, tolerance: number): PacePoint[] {
  let found = simplified(points, tolerance);
  for (let wide = tolerance; found.length > most; found = simplified(points, wide)) wide *= 1.5;
  return found;
}
