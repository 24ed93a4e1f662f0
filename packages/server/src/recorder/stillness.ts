import { uncertaintyOfRest } from '@heuristor/core';

/** One frame's worth of raw readings. */
interface Part {
  at: number;
  count: number;
  sum: number;
  /** Σ of their squares, counted from the first of them. */
  squares: number;
  base: number;
}

/** What is known of whether a channel rests, and where. */
export interface Stillness {
  /** A still reading scatters by so much, in the device's unit. */
  readonly noise: number;
  /** The step between two readings, in the device’s unit; 0 where there is none. */
  readonly resolution: number;
  readonly low: number;
  readonly high: number;
  readonly parts: readonly Part[];
  /** Where it rested last, in the device's unit, and by how much the means of its messages scattered there. */
  readonly rest: { offset: number; spread: number; uncertainty: number } | null;
}

/** It rests when it has not moved for so long. */
const restMilliseconds = 500;
/** A still target scatters by the sensor's own noise; five times that is motion. Common practice, no source. */
const stillFactor = 5;

export const restless = (noise: number, low: number, high: number, resolution = 0): Stillness => ({
  noise,
  resolution,
  low,
  high,
  parts: [],
  rest: null,
});

/**
 * Takes readings of a channel, in the device's unit. While it rests, its place is the mean of the older half of the last half
 * second: that a motion has just begun does not bend it.
 */
export function watchRest(
  still: Stillness,
  { values, channels }: { values: Float64Array; channels: number },
  channel: number,
  at: number,
): Stillness {
  let [count, sum, squares, base] = [0, 0, 0, NaN];
  for (let i = channel; i < values.length; i += channels) {
    const value = values[i];
    if (!(value > still.low && value < still.high)) continue;
    if (count === 0) base = value;
    count++;
    sum += value;
    squares += (value - base) ** 2;
  }
  if (count === 0) return still;
  const fresh = [...still.parts, { at, count, sum, squares, base }];
  const parts = fresh.filter((part, i) => part.at > at - restMilliseconds || i === fresh.length - 1);
  const spans = at - parts[0].at >= restMilliseconds * 0.8;
  const mean = meanOf(parts);
  const spread = Math.max(...parts.map((part) => Math.abs(part.sum / part.count - mean)));
  if (!spans || spread > stillFactor * still.noise) return { ...still, parts };
  const older = parts.slice(0, Math.ceil(parts.length / 2));
  return {
    ...still,
    parts,
    rest: { offset: meanOf(older), spread, uncertainty: uncertaintyOf(older, still) },
  };
}

/** Standard uncertainty of the mean of still readings: their scatter over √n, and the step of the sensor. */
function uncertaintyOf(parts: readonly Part[], { noise, resolution }: Stillness): number {
  const mean = meanOf(parts);
  const count = parts.reduce((total, part) => total + part.count, 0);
  // Σ (y − ȳ)² of each part about the mean of all: its own squares, moved from its base.
  const squares = parts.reduce(
    (total, part) =>
      total +
      part.squares -
      2 * (mean - part.base) * (part.sum - part.count * part.base) +
      part.count * (mean - part.base) ** 2,
    0,
  );
  return uncertaintyOfRest(
    count > 1 ? Math.sqrt(Math.max(squares, 0) / (count - 1)) : noise,
    count,
    resolution,
  );
}

function meanOf(parts: readonly Part[]): number {
  const count = parts.reduce((total, part) => total + part.count, 0);
  return parts.reduce((total, { sum }) => total + sum, 0) / count;
}
