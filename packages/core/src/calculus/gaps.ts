import { Refusal } from '../refusal';
import { type Sampling, timeAt } from '../series/sampling';

/** A lone lost echo or two are bridged by a straight line; what went on in a longer gap nobody knows. */
export const longestBridge = 3;
/** A step of irregular times that is so many times longer than the longest beside it is a hole. */
const holeFactor = 5;

/** Whether nothing was recorded between two neighbouring readings that are there. */
export function isGap(sampling: Sampling, left: number, right: number): boolean {
  if (right - left - 1 > longestBridge) return true;
  if (sampling.kind === 'regular') return false;
  const { times } = sampling;
  const step = times[right] - times[left];
  let longest = 0;
  for (let i = left - 2; i < left; i++) if (i >= 0) longest = Math.max(longest, times[i + 1] - times[i]);
  for (let i = right; i < right + 2; i++)
    if (i + 1 < times.length) longest = Math.max(longest, times[i + 1] - times[i]);
  return longest > 0 && step > holeFactor * longest;
}

/** The refusal to say something about a stretch with a gap in it. */
export function gapRefusal(sampling: Sampling, left: number, right: number): Refusal {
  const shown = (i: number) => Number(timeAt(sampling, i).toPrecision(6));
  return new Refusal(
    `Readings are missing between ${shown(left)} and ${shown(right)}, so the area would be a guess. Choose a region without the gap.`,
  );
}
