import { type Fitted } from '@heuristor/core';
import { valueAtShare } from '../traces/axes/axisScale';
import { type FittedCurve, type Sight } from '../workers/protocol';

const points = 160;

interface Drawn {
  showBand?: boolean;
  showCurveBand?: boolean;
  showBeyond?: boolean;
  bandsHold?: '68' | '95';
}

/**
 * What is drawn beside a fitted curve: itself where nothing was read, the band in which further readings would fall, and the one in
 * which the curve lies.
 */
export function besideFit(
  { curve, valueAt, bandAt, curveBandAt }: Fitted,
  { showBand = false, showCurveBand = false, showBeyond = false, bandsHold = '68' }: Drawn,
  sight: Sight,
): FittedCurve[] {
  const [low, high] = [curve.x[0], curve.x[curve.x.length - 1]];
  const beyond = showBeyond
    ? [
        ...(sight.from < low ? [along({ ...sight, to: low }, valueAt)] : []),
        ...(sight.to > high ? [along({ ...sight, from: high }, valueAt)] : []),
      ].map((line): FittedCurve => ({ ...line, look: 'faint' }))
    : [];
  const share = bandsHold === '95' ? 0.95 : undefined;
  const [from, to] = showBeyond ? [Math.min(sight.from, low), Math.max(sight.to, high)] : [low, high];
  const edges = (halfAt: Fitted['bandAt']): FittedCurve[] =>
    [1, -1].map((sign) => ({
      ...along({ ...sight, from, to }, (x) => valueAt(x) + sign * halfAt(x, share)),
      look: 'edge',
    }));
  return [...beyond, ...(showBand ? edges(bandAt) : []), ...(showCurveBand ? edges(curveBandAt) : [])];
}

/** A fitted curve as it is drawn on a logarithmic axis: its points lie as close there as on any. */
export function curveAlong({ curve, valueAt }: Fitted, sight: Sight): FittedCurve {
  const [low, high] = [curve.x[0], curve.x[curve.x.length - 1]];
  return along({ ...sight, from: low > 0 ? low : Math.min(sight.from, high), to: high }, valueAt);
}

/** A function drawn from one place to another; a value that is none leaves the line there. */
function along(part: Sight, valueAt: (x: number) => number) {
  const all = Array.from({ length: points }, (_, i) => valueAtShare(i / (points - 1), part));
  const good = all.map((x) => [x, valueAt(x)] as const).filter(([, y]) => Number.isFinite(y));
  return { x: Float64Array.from(good, ([x]) => x), y: Float64Array.from(good, ([, y]) => y) };
}
