/** One frame's worth of raw readings. */
interface Part {
  at: number;
  count: number;
  sum: number;
}

/** What is known of whether a channel rests, and where. */
export interface Stillness {
  /** A still reading scatters by so much, in the device's unit. */
  readonly noise: number;
  readonly low: number;
  readonly high: number;
  readonly parts: readonly Part[];
  /** Where it rested last, in the device's unit, and by how much the means of its messages scattered there. */
  readonly rest: { offset: number; spread: number } | null;
}

/** It rests when it has not moved for so long. */
const restMilliseconds = 500;
/** A still target scatters by the sensor's own noise; five times that is motion. Common practice, no source. */
const stillFactor = 5;

export const restless = (noise: number, low: number, high: number): Stillness => ({
  noise,
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
  let [count, sum] = [0, 0];
  for (let i = channel; i < values.length; i += channels) {
    const value = values[i];
    if (!(value > still.low && value < still.high)) continue;
    count++;
    sum += value;
  }
  if (count === 0) return still;
  const fresh = [...still.parts, { at, count, sum }];
  const parts = fresh.filter((part, i) => part.at > at - restMilliseconds || i === fresh.length - 1);
  const spans = at - parts[0].at >= restMilliseconds * 0.8;
  const mean = meanOf(parts);
  const spread = Math.max(...parts.map((part) => Math.abs(part.sum / part.count - mean)));
  if (!spans || spread > stillFactor * still.noise) return { ...still, parts };
  return { ...still, parts, rest: { offset: meanOf(parts.slice(0, Math.ceil(parts.length / 2))), spread } };
}

function meanOf(parts: readonly Part[]): number {
  const count = parts.reduce((total, part) => total + part.count, 0);
  return parts.reduce((total, { sum }) => total + sum, 0) / count;
}
