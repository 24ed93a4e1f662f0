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

/** A pass in the order of time; null where it is no measurement. */
interface Place {
  time: number;
  beam: number;
  pass: Blocking | null;
}

const middleWeights = (first: Blocking, last: Blocking) => [
  { edge: first.from, weight: -0.5 },
  { edge: first.to, weight: -0.5 },
  { edge: last.from, weight: 0.5 },
  { edge: last.to, weight: 0.5 },
];

/**
 * Passes two by two; one that has no other one is left out, unless that may still come. A pass that was no measurement keeps its
 * place, so that what follows is not paired with what it does not belong to.
 */
function pairsOf(
  blockings: readonly Blocking[],
  beams: 1 | 2,
  leftOut: LeftOutPass[],
): [Blocking, Blocking][] {
  const places: Place[] = [
    ...blockings.map((pass) => ({ time: middleOf(pass), beam: pass.beam, pass })),
    ...leftOut.flatMap(({ time, beam }) => (beam === undefined ? [] : [{ time, beam, pass: null }])),
  ].sort((a, b) => a.time - b.time);
  const found: [Blocking, Blocking][] = [];
  for (let i = 0; i + 1 < places.length;) {
    const [first, last] = [places[i], places[i + 1]];
    const belong = beams === 1 || first.beam !== last.beam;
    if (belong && first.pass !== null && last.pass !== null) found.push([first.pass, last.pass]);
    else
      for (const { time, pass } of belong ? [first, last] : [first])
        if (pass !== null)
          leftOut.push({
            time,
            reason: belong ? 'the other pass of its pair does not count' : 'it passed only one of the beams',
          });
    i += belong ? 2 : 1;
  }
  leftOut.sort((a, b) => a.time - b.time);
  return found;
}
