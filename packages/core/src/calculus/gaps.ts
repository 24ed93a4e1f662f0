import { Refusal } from '../refusal';
import { type Sampling, timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { printedUnit } from '../units/unit';

/** A lone lost echo or two are bridged by a straight line; what went on in a longer gap nobody knows. */
export const longestBridge = 3;
/** A running sum goes on over so many missing readings in a row: each is a small part of all that it gathers. Common practice, no source. */
export const longestSumBridge = 10;
/** A step of irregular times that is so many times longer than the longest beside it is a hole. */
const holeFactor = 5;

/** Whether nothing was recorded between two neighbouring readings that are there. */
export function isGap(sampling: Sampling, left: number, right: number, longest = longestBridge): boolean {
  if (right - left - 1 > longest) return true;
  if (sampling.kind === 'regular') return false;
  const { times } = sampling;
  const step = times[right] - times[left];
  let beside = 0;
  for (let i = left - 2; i < left; i++) if (i >= 0) beside = Math.max(beside, times[i + 1] - times[i]);
  for (let i = right; i < right + 2; i++)
    if (i + 1 < times.length) beside = Math.max(beside, times[i + 1] - times[i]);
  return beside > 0 && step > holeFactor * beside;
}

/** The refusal to go on with a sum over a gap. */
export function sumGapRefusal({ symbol, sampling, timeUnit }: Series, left: number, right: number): Refusal {
  const unit = printedUnit(timeUnit);
  const shown = (i: number) =>
    `${Number(timeAt(sampling, i).toPrecision(6))}${unit === '' ? '' : ` ${unit}`}`;
  return new Refusal(
    `Readings of ${symbol} are missing between ${shown(left)} and ${shown(right)}, more than the ${longestSumBridge} in a row that are bridged by a straight line; the area there is unknown. Take the area in a region without the gap.`,
  );
}

/** The refusal to say something about an interval with a gap in it. */
export function gapRefusal(sampling: Sampling, left: number, right: number): Refusal {
  const shown = (i: number) => Number(timeAt(sampling, i).toPrecision(6));
  return new Refusal(
    `Readings are missing between ${shown(left)} and ${shown(right)}, so the area would be a guess. Choose a region without the gap.`,
  );
}
