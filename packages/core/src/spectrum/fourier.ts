import FFT from 'fft.js';
import { cos, sin } from '../elementary';

/** The transform of each size with its cosines and sines, made once. */
const made = new Map<number, FFT>();
const mostKept = 4;

/**
 * The Fourier transform of values, a power of two of them, whose every bit is the same wherever it runs (see `elementary.ts`).
 * @returns real and imaginary part in turn; only of the lower half of the lines, the others are their conjugates
 */
export function fourierOf(values: Float64Array): Float64Array {
  const lines = new Float64Array(2 * values.length);
  transformOf(values.length).realTransform(lines, values);
  return lines;
}

function transformOf(size: number): FFT {
  const known = made.get(size);
  if (known !== undefined) return known;
  const transform = new FFT(size);
  transform.table = Float64Array.from({ length: 2 * size }, (_, i) => {
    const angle = (Math.PI * (i - (i % 2))) / size;
    return i % 2 === 0 ? cos(angle) : -sin(angle);
  });
  const [oldest] = made.keys();
  if (made.size >= mostKept) made.delete(oldest);
  made.set(size, transform);
  return transform;
}
