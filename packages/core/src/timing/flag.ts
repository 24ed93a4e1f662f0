import { type Blocking, blockingsOf, middleOf } from './edges';
import { type EdgesOf, type EdgeWeight, type Timed, addTimed, nothingTimed } from './passage';

/**
 * The speed of a flag of length L that blocks a beam from t₁ to t₂: v = L/(t₂ − t₁) at the moment (t₁ + t₂)/2, where it is
 * exact for any constant acceleration (the mean speed of uniformly accelerated motion is the speed at the middle of the time).
 */
export function flagSpeeds({ edges, length, second }: EdgesOf): Timed {
  const { blockings, leftOut } = blockingsOf(edges, second);
  const timed = nothingTimed(leftOut);
  for (const blocking of [...blockings].sort((a, b) => middleOf(a) - middleOf(b))) {
    const { value, byEdge, byLength } = speedOf(blocking, length);
    addTimed(timed, middleOf(blocking), value, byEdge, byLength);
  }
  return timed;
}

/** The speed of one flag, and what moves it. */
export function speedOf(
  { from, to, began, ended }: Blocking,
  length: number,
): { value: number; byEdge: EdgeWeight[]; byLength: number } {
  const duration = ended - began;
  const byTime = length / (duration * duration);
  return {
    value: length / duration,
    byEdge: [
      { edge: from, weight: byTime },
      { edge: to, weight: -byTime },
    ],
    byLength: 1 / duration,
  };
}
