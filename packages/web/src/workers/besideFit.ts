import { type Fitted } from '@heuristor/core';
import { type FittedCurve, type Sight } from './protocol';

const points = 160;

/** What is drawn beside a fitted curve: itself where nothing was read, and the band in which further readings would fall. */
export function besideFit(
  { curve, valueAt, bandAt }: Fitted,
  { showBand = false, showBeyond = false }: { showBand?: boolean; showBeyond?: boolean },
  sight: Sight,
): FittedCurve[] {
  const [low, high] = [curve.x[0], curve.x[curve.x.length - 1]];
  const beyond = showBeyond
    ? [
        ...(sight.from < low ? [along(sight.from, low, valueAt)] : []),
        ...(sight.to > high ? [along(high, sight.to, valueAt)] : []),
      ].map((line): FittedCurve => ({ ...line, look: 'faint' }))
    : [];
  if (!showBand) return beyond;
  const [from, to] = showBeyond ? [Math.min(sight.from, low), Math.max(sight.to, high)] : [low, high];
  const edge = (sign: 1 | -1): FittedCurve => ({
    ...along(from, to, (x) => valueAt(x) + sign * bandAt(x)),
    look: 'edge',
  });
  return [...beyond, edge(1), edge(-1)];
}

/** A function drawn from one place to another; a value that is none leaves the line there. */
function along(from: number, to: number, valueAt: (x: number) => number) {
  const all = Array.from({ length: points }, (_, i) => from + ((to - from) * i) / (points - 1));
  const good = all.map((x) => [x, valueAt(x)] as const).filter(([, y]) => Number.isFinite(y));
  return { x: Float64Array.from(good, ([x]) => x), y: Float64Array.from(good, ([, y]) => y) };
}
