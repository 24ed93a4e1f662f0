import { type GuideItemOf, mostSketched } from '@heuristor/contracts';

export type Point = readonly [number, number];
type Axes = Pick<GuideItemOf<'sketch'>, 'across' | 'upright'>;

/** A sketch has one value at each of so many places along its axis. */
const places = 121;

const clamped = (value: number, { from, to }: { from: number; to: number }) =>
  Math.min(to, Math.max(from, value));

const placeOf = (x: number, { from, to }: Axes['across']) =>
  Math.round((clamped(x, { from, to }) - from) / ((to - from) / (places - 1)));

/**
 * A sketch with a stroke from one point to another: where the stroke goes, it takes the place of what was drawn before.
 * @param points in the order of the horizontal axis
 */
export function withStroke(points: readonly Point[], from: Point, to: Point, axes: Axes): Point[] {
  const step = (axes.across.to - axes.across.from) / (places - 1);
  const at = (place: number) => axes.across.from + place * step;
  const drawn = new Map(points.map((point) => [placeOf(point[0], axes.across), point[1]]));
  const [first, last] = [placeOf(from[0], axes.across), placeOf(to[0], axes.across)];
  const by = first <= last ? 1 : -1;
  for (let place = first; ; place += by) {
    const share = first === last ? 1 : (place - first) / (last - first);
    drawn.set(place, clamped(from[1] + share * (to[1] - from[1]), axes.upright));
    if (place === last) break;
  }
  return [...drawn.entries()].sort(([a], [b]) => a - b).map(([place, y]): Point => [at(place), y]);
}

/** Points as they are typed, “0 0; 1 0.5; 2 0.2”. @throws Error that says what would be right */
export function typedPoints(text: string, { across, upright }: Axes): Point[] {
  const points = text
    .split(/[;\n]/)
    .filter((part) => part.trim() !== '')
    .map((part): Point => {
      const numbers = part
        .trim()
        .split(/[\s,]+/)
        .map(Number);
      if (numbers.length !== 2 || !numbers.every(Number.isFinite))
        throw new Error(
          `“${part.trim()}” is no point. Type two numbers with a space between, such as 1 0.5.`,
        );
      const [x, y] = numbers;
      if (x < across.from || x > across.to || y < upright.from || y > upright.to)
        throw new Error(`“${part.trim()}” lies outside the axes.`);
      return [x, y];
    });
  if (points.length > mostSketched) throw new Error(`A sketch has ${mostSketched} points at most.`);
  return points.sort(([a], [b]) => a - b);
}

/** Points as they are typed; of a drawn curve, every tenth. */
export function pointsText(points: readonly Point[]): string {
  const every = points.length > 20 ? 10 : 1;
  return points
    .filter((_, i) => i % every === 0 || i === points.length - 1)
    .map(([x, y]) => `${Number(x.toPrecision(4))} ${Number(y.toPrecision(3))}`)
    .join('; ');
}
