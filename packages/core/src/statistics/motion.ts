import { cos, log2, pow, square } from '../elementary';
import { fourierOf } from '../spectrum/fourier';

const share = 0.99;
/** Fewer readings than this say nothing about how fast something moves. */
const fewest = 32;
/** A motion stands out of the noise where it scatters by so many times as much. */
const standsOut = 5;

/**
 * The frequency below which nearly all of a motion lies (99 % of its power above that of the noise), in hertz: what a sample
 * rate has to be held against. Method: straight line taken off, Hann window, discrete Fourier transform.
 * @param values readings at equal intervals; missing ones (NaN) are bridged by the reading before
 * @param rate readings a second
 * @param noise standard deviation of a still reading
 * @returns null where there are too few readings or nothing moves
 */
export function bandwidthOf(values: ArrayLike<number>, rate: number, noise: number): number | null {
  const { length } = values;
  const size = pow(2, Math.floor(log2(length)));
  if (size < fewest) return null;
  const used = new Float64Array(size);
  let before = NaN;
  for (let i = 0; i < size; i++) {
    const value = values[length - size + i];
    if (!Number.isNaN(value)) before = value;
    used[i] = before;
  }
  const first = used.findIndex((value) => !Number.isNaN(value));
  if (first < 0) return null;
  used.fill(used[first], 0, first);
  const middle = (size - 1) / 2;
  let [mean, slope] = [0, 0];
  for (let i = 0; i < size; i++) {
    mean += used[i] / size;
    slope += ((i - middle) * used[i] * 12) / (size * (size * size - 1));
  }
  let squares = 0;
  for (let i = 0; i < size; i++) {
    const rest = used[i] - mean - slope * (i - middle);
    squares += rest * rest;
    used[i] = rest * (0.5 - 0.5 * cos((2 * Math.PI * (i + 0.5)) / size));
  }
  if (Math.sqrt(squares / size) <= standsOut * noise) return null;
  const spectrum = fourierOf(used);
  // White noise of this scatter has this power in every line; the mean square of the window is 3/8.
  const floor = noise * noise * size * 0.375;
  const power = Array.from({ length: size / 2 }, (_, k) =>
    Math.max(square(spectrum[2 * k]) + square(spectrum[2 * k + 1]) - 3 * floor, 0),
  );
  const total = power.reduce((sum, line) => sum + line, 0);
  let gathered = 0;
  for (let k = 0; k < power.length; k++) {
    gathered += power[k];
    if (gathered >= share * total) return total === 0 ? null : ((k + 1) * rate) / size;
  }
  return null;
}
