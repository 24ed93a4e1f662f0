import { type ReadingsRoot, type WeightSpan } from '../series/noisePath';

/** Values at the same places of the readings of one root. */
export interface RootVectors {
  root: ReadingsRoot;
  /** Ratio of this root's standard deviation to that of the first one. */
  ratio: number;
  vectors: WeightSpan[];
}

/**
 * What fits have spread last, by the fit: its results ask for it one after the other, and so do comparisons with it and whoever stores
 * what it says. It is many times what was read, so that only so many numbers are held.
 */
const spreadLately = new Map<object, RootVectors[]>();
const [mostHeld, mostOfOne] = [1_000_000, 200_000];
let held = 0;

/** What a fit spreads over its roots, as it was made last where that is still held. @param fit any object that is the fit's own */
export function spreadOf(fit: object, make: () => RootVectors[]): RootVectors[] {
  const known = spreadLately.get(fit);
  if (known !== undefined) return known;
  const roots = make();
  const size = sizeOf(roots);
  if (size > mostOfOne) return roots;
  spreadLately.set(fit, roots);
  held += size;
  for (const [oldest, other] of spreadLately) {
    if (held <= mostHeld) break;
    spreadLately.delete(oldest);
    held -= sizeOf(other);
  }
  return roots;
}

const sizeOf = (roots: readonly RootVectors[]): number =>
  roots.reduce((sum, { vectors }) => vectors.reduce((all, { weights }) => all + weights.length, sum), 0);
