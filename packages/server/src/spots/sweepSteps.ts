/** Each time that the steps become finer, it is by this. */
const finer = 4;
/** More readings than this no sweep takes. */
export const mostInSweep = 200;

/** The values of the first pass, from one end to the other, both among them. */
export function coarseSteps(from: number, to: number, step: number): number[] {
  const count = Math.max(Math.round(Math.abs(to - from) / step), 1);
  return Array.from({ length: count + 1 }, (_, i) => rounded(from + ((to - from) * i) / count));
}

/** What a sum of steps leaves behind the digits that anybody set. */
const rounded = (value: number) => Number(value.toPrecision(12));

/**
 * The values to be looked at next about the largest reading, a quarter as far apart as the last ones, between its neighbours;
 * none where they would be finer than is wanted, or where nothing was read.
 */
export function finerSteps(
  taken: readonly { at: number; value: number }[],
  step: number,
  finest: number,
): { steps: number[]; step: number } {
  const next = step / finer;
  const none = { steps: [], step: next };
  if (taken.length < 3 || next < finest * (1 - 1e-9)) return none;
  const peak = taken.reduce((largest, point) => (point.value > largest.value ? point : largest));
  const places = taken.map(({ at }) => at);
  const [low, high] = [Math.min(...places), Math.max(...places)];
  const steps: number[] = [];
  for (let k = -finer + 1; k < finer; k++) {
    const at = rounded(peak.at + k * next);
    const isTaken = places.some((place) => Math.abs(place - at) < next / 2);
    if (!isTaken && at >= low && at <= high) steps.push(at);
  }
  return { steps, step: next };
}
