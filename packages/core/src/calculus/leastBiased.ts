import { square } from '../elementary';
import { addSpans, normSquared, scaledSpan } from '../series/noisePath';
import { type WeightedValue, LazyWeightedValue } from './cycles';

/** A polynomial through the readings about a turn, and how far it reaches, as a share of the widest. */
export interface Level {
  degree: 2 | 4;
  share: number;
}

/** From the one that noise moves least to the one that follows the shape of a turn most closely. */
const levels: readonly Level[] = [
  { degree: 2, share: 1 },
  { degree: 4, share: 1 },
  { degree: 4, share: 0.6 },
  { degree: 4, share: 0.36 },
];

/** By so many standard deviations of their difference the next polynomial has to differ before it is taken. */
const clearly = 3;
/** Below this share of a value, a difference is rounding. */
const rounding = 1e-9;

/**
 * What a polynomial tells of a turn, by the first one that the next does not clearly contradict: a parabola where the turn is as that of a
 * swing, one of fourth degree where it leans or is pointed, as a pulse does, and over a shorter part where that still misses.
 * @param isCoarse whether few readings lie between this turn and the next
 */
export function leastBiased(
  found: (level: Level) => WeightedValue | null,
  sigma: number,
  isCoarse: boolean,
): WeightedValue | null {
  const [first, ...others] = levels;
  let taken = found(first);
  let isFirst = true;
  let change = 0;
  for (const level of others) {
    const next = taken === null ? null : found(level);
    if (next === null || taken === null) break;
    const off = Math.abs(next.value - taken.value);
    // Of a narrow top the closer one goes through the same readings, which tells nothing.
    if (off <= rounding * Math.max(Math.abs(next.value), Math.abs(taken.value))) break;
    const ofOff = sigma * Math.sqrt(normSquared(addSpans(next.weights, taken.weights, -1).weights));
    const isClear = off > clearly * ofOff;
    if (isClear || !isFirst) change = off;
    // Few readings seldom lie evenly about a top; what noise does not explain of the difference may come from that.
    else if (isCoarse) change = Math.sqrt(Math.max(square(off) - square(ofOff), 0));
    if (!isClear) break;
    isFirst = false;
    taken = next;
  }
  // Nobody knows what a still closer one would change: about as much as the last one did.
  return taken === null ? taken : widened(taken, change, sigma);
}

/** A value that may be further off than noise makes it: its weights stand for both. */
function widened(found: WeightedValue, by: number, sigma: number): WeightedValue {
  if (sigma === 0 || by === 0) return found;
  return new LazyWeightedValue(found.value, () => {
    const own = sigma * Math.sqrt(normSquared(found.weights.weights));
    return scaledSpan(found.weights, Math.sqrt(1 + square(by / own)));
  });
}
