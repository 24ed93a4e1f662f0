import { type Blocking, blockingsOf, middleOf } from './edges';
import { type EdgesOf, type Timed, addTimed, nothingTimed } from './passage';

/** A period that differs from the middle one by so much has missed a blocking, or counted one too many. */
const oddShare = 0.3;

/**
 * The period of a bob that swings through a beam: it comes back the same way at every second blocking, so
 * T = m₃ − m₁ with m the middles of the blockings, which do not depend on how wide the bob is, nor on where in its path the
 * beam stands. Periods that follow each other share no time.
 */
export function periods({ edges, second }: EdgesOf): Timed {
  const { blockings, leftOut } = blockingsOf(edges, second);
  const passes = [...blockings].sort((a, b) => middleOf(a) - middleOf(b));
  const timed = nothingTimed(leftOut);
  const usual = medianOf(passes.slice(2).map((pass, i) => middleOf(pass) - middleOf(passes[i])));
  for (let i = 0; i + 2 < passes.length;) {
    const [first, there, back] = passes.slice(i, i + 3);
    const period = middleOf(back) - middleOf(first);
    if (Math.abs(period - usual) <= oddShare * usual) {
      addTimed(timed, middleOf(there), period, weightsOf(first, back), 0);
      i += 2;
    } else {
      leftOut.push({ time: middleOf(there), reason: 'the bob missed the beam, or something else passed' });
      i++;
    }
  }
  leftOut.sort((a, b) => a.time - b.time);
  return timed;
}

const weightsOf = (first: Blocking, back: Blocking) => [
  { edge: first.from, weight: -0.5 },
  { edge: first.to, weight: -0.5 },
  { edge: back.from, weight: 0.5 },
  { edge: back.to, weight: 0.5 },
];

function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.length === 0 ? NaN : sorted[sorted.length >> 1];
}
