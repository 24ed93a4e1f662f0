import { Refusal } from '../refusal';

/**
 * When the values of a series were taken, on an ascending abscissa: at equal intervals, at times of their own, or at the
 * times of events that switch between states. Nothing else carries times, interval and start.
 */
export type Sampling =
  | { readonly kind: 'regular'; readonly start: number; readonly interval: number; readonly count: number }
  | { readonly kind: 'timed'; readonly times: Float64Array }
  | {
      readonly kind: 'events';
      readonly times: Float64Array;
      readonly states: Uint8Array;
      /** The step in which the times were counted; absent where nobody knows. */
      readonly resolution?: number;
    };

export const regular = (start: number, interval: number, count: number): Sampling => ({
  kind: 'regular',
  start,
  interval,
  count,
});

export const timed = (times: Float64Array): Sampling => ({ kind: 'timed', times });

/** Number of values. */
export const countOf = (sampling: Sampling): number =>
  sampling.kind === 'regular' ? sampling.count : sampling.times.length;

/** Spacing of regular values in units of the abscissa; null where times are their own. */
export const intervalOf = (sampling: Sampling): number | null =>
  sampling.kind === 'regular' ? sampling.interval : null;

/** The abscissa of one value. */
export const timeAt = (sampling: Sampling, index: number): number =>
  sampling.kind === 'regular' ? sampling.start + index * sampling.interval : sampling.times[index];

const grids = new Map<string, Float64Array>();
const mostGrids = 16;

/**
 * All times as an array. Regular ones are made once for a grid and shared by every series on it, also while it grows; do
 * not write into them.
 */
export function timesOf(sampling: Sampling): Float64Array {
  if (sampling.kind !== 'regular') return sampling.times;
  const { start, interval, count } = sampling;
  const key = `${start}/${interval}`;
  let grid = grids.get(key);
  if (grid === undefined || grid.length < count) {
    const length = Math.max(count, grid === undefined ? 0 : 2 * grid.length);
    grid = new Float64Array(length);
    for (let i = 0; i < length; i++) grid[i] = start + i * interval;
    if (grids.size >= mostGrids) grids.clear();
    grids.set(key, grid);
  }
  return grid.length === count ? grid : grid.subarray(0, count);
}

/** First index whose abscissa is at or above `at`. */
export function indexAtOrAfter(sampling: Sampling, at: number): number {
  if (sampling.kind === 'regular') {
    const { start, interval, count } = sampling;
    let index = Math.min(Math.max(Math.ceil((at - start) / interval), 0), count);
    // The division rounds; the times themselves decide.
    while (index > 0 && timeAt(sampling, index - 1) >= at) index--;
    while (index < count && timeAt(sampling, index) < at) index++;
    return index;
  }
  return lowerBound(sampling.times, (time) => time < at);
}

/** First index whose abscissa is above `at`. */
export function indexAfter(sampling: Sampling, at: number): number {
  if (sampling.kind === 'regular') {
    let index = indexAtOrAfter(sampling, at);
    while (index < sampling.count && timeAt(sampling, index) <= at) index++;
    return index;
  }
  return lowerBound(sampling.times, (time) => time <= at);
}

function lowerBound(times: Float64Array, isBefore: (time: number) => boolean): number {
  let low = 0;
  let high = times.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (isBefore(times[middle])) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Whether two samplings share their times, but for their length. */
export const onOneGrid = (a: Sampling, b: Sampling): boolean =>
  a === b ||
  (a.kind === 'regular'
    ? b.kind === 'regular' && a.start === b.start && a.interval === b.interval
    : b.kind !== 'regular' && a.times === b.times);

const checked = new WeakSet<Float64Array>();

/**
 * The door of the core for samplings made elsewhere.
 * @throws Refusal where times are missing, not finite, repeated or not ascending, or where an interval is not positive
 */
export function checkSampling(sampling: Sampling): void {
  if (sampling.kind === 'regular') {
    const { start, interval, count } = sampling;
    if (!(Number.isFinite(start) && interval > 0 && Number.isFinite(interval)))
      throw new Refusal(
        `Regular readings need a finite start and a positive interval, not ${start} and ${interval}.`,
      );
    if (!Number.isInteger(count) || count < 0)
      throw new Refusal(`The number of readings must be a whole number, not ${count}.`);
    return;
  }
  const { times } = sampling;
  if (checked.has(times)) return;
  for (let i = 0; i < times.length; i++) {
    if (!Number.isFinite(times[i]))
      throw new Refusal(`The time of reading ${i + 1} is ${times[i]}. Every reading needs a time.`);
    if (i > 0 && !(times[i] > times[i - 1]))
      throw new Refusal(
        `The time of reading ${i + 1} (${times[i]}) is not after the one before it (${times[i - 1]}). Sort the readings by time, each time once.`,
      );
  }
  if (sampling.kind === 'events' && sampling.states.length !== times.length)
    throw new Refusal(`There are ${times.length} events but ${sampling.states.length} states.`);
  checked.add(times);
}
