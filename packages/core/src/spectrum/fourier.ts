import FFT from 'fft.js';
import { cos, sin } from '../elementary';

/** Cosines and sines of each size, made once. */
const tables = new Map<number, number[]>();
const mostKept = 4;

/** A Fourier transform of a power of two of values, whose every bit is the same wherever it runs (see `elementary.ts`). */
export function fourierOf(size: number): FFT {
  const transform = new FFT(size);
  let table = tables.get(size);
  if (table === undefined) {
    table = Array.from({ length: 2 * size }, (_, i) => {
      const angle = (Math.PI * (i - (i % 2))) / size;
      return i % 2 === 0 ? cos(angle) : -sin(angle);
    });
    const [oldest] = tables.keys();
    if (tables.size >= mostKept) tables.delete(oldest);
    tables.set(size, table);
  }
  transform.table = table;
  return transform;
}
