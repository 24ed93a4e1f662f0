import { type Blocking, type LeftOutPass, blockingsOf, middleOf } from './edges';
import { speedOf } from './flag';
import { type EdgesOf, type Timed, addTimed, nothingTimed } from './passage';

export type PairGives = 'first' | 'second' | 'between' | 'acceleration';

/**
 * Two passes of a flag that belong together, through two beams one after the other, or of the two flags of a cart through one:
 * the speed at each, the time from the middle of one to the middle of the other, and a = (v₂ − v₁)/(that time), which is exact
 * for a constant acceleration.
 * @param beams how many beams there are: of two, a pair is a pass of each; of one, every two passes are
 */
export function pairs({ edges, length, second }: EdgesOf, beams: 1 | 2, gives: PairGives): Timed {
  const { blockings, leftOut } = blockingsOf(edges, second);
  const timed = nothingTimed(leftOut);
  for (const [first, last] of pairsOf(blockings, beams, leftOut)) {
    const [v1, v2] = [speedOf(first, length), speedOf(last, length)];
    const between = middleOf(last) - middleOf(first);
    switch (gives) {
      case 'first':
        addTimed(timed, middleOf(first), v1.value, v1.byEdge, v1.byLength);
        break;
      case 'second':
        addTimed(timed, middleOf(last), v2.value, v2.byEdge, v2.byLength);
        break;
      case 'between':
        addTimed(timed, middleOf(last), between, middleWeights(first, last), 0);
        break;
      case 'acceleration': {
        const value = (v2.value - v1.value) / between;
        addTimed(
          timed,
          (middleOf(first) + middleOf(last)) / 2,
          value,
          [
            ...v2.byEdge.map(({ edge, weight }) => ({ edge, weight: weight / between })),
            ...v1.byEdge.map(({ edge, weight }) => ({ edge, weight: -weight / between })),
            ...middleWeights(first, last).map(({ edge, weight }) => ({
              edge,
              weight: (-weight * value) / between,
            })),
          ],
          value / length,
        );
      }
    }
  }
  return timed;
}

const middleWeights = (first: Blocking, last: Blocking) => [
  { edge: first.from, weight: -0.5 },
  { edge: first.to, weight: -0.5 },
  { edge: last.from, weight: 0.5 },
  { edge: last.to, weight: 0.5 },
];

/** Passes two by two; one that has no other one is left out, unless that may still come. */
function pairsOf(
  blockings: readonly Blocking[],
  beams: 1 | 2,
  leftOut: LeftOutPass[],
): [Blocking, Blocking][] {
  const passes = [...blockings].sort((a, b) => middleOf(a) - middleOf(b));
  const found: [Blocking, Blocking][] = [];
  for (let i = 0; i + 1 < passes.length;) {
    const [first, last] = [passes[i], passes[i + 1]];
    if (beams === 1 || first.beam !== last.beam) {
      found.push([first, last]);
      i += 2;
      continue;
    }
    leftOut.push({ time: middleOf(first), reason: 'it passed only one of the beams' });
    i++;
  }
  leftOut.sort((a, b) => a.time - b.time);
  return found;
}
