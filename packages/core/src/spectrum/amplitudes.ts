import { log2, pow } from '../elementary';
import { fourierOf } from './fourier';
import { type SpectrumWindow, windowWeight } from './windows';

/** Amplitudes over frequencies 0, step, 2 step, … up to half the sample rate. */
export interface AmplitudeSpectrum {
  /** Distance of neighbouring frequencies, in cycles a reading. */
  step: number;
  amplitudes: Float64Array;
}

/**
 * The one-sided amplitude spectrum of evenly spaced readings: 2 |X| / Σw, and half of that at frequency 0 and at half the sample
 * rate, so that a sine of amplitude A stands as high as A (G. Heinzel, A. Rüdiger and R. Schilling, Spectrum and spectral density
 * estimation by the DFT, 2002, eq. 24, without its √2: amplitudes, not effective values).
 * @param values readings without what is to be left out of them, such as their mean
 * @param padding zeros are added until there are at least so many times as many numbers, up to a power of two
 */
export function amplitudeSpectrum(
  values: Float64Array,
  window: SpectrumWindow,
  padding: number,
): AmplitudeSpectrum {
  const count = values.length;
  const size = pow(2, Math.max(Math.ceil(log2(Math.max(count * padding, 2))), 1));
  const input = new Float64Array(size);
  let sum = 0;
  for (let i = 0; i < count; i++) {
    const weight = windowWeight(window, i / count);
    sum += weight;
    input[i] = weight * values[i];
  }
  const half = size / 2;
  const amplitudes = new Float64Array(half + 1);
  if (sum === 0) return { step: 1 / size, amplitudes };
  const output = fourierOf(input);
  for (let k = 0; k <= half; k++)
    amplitudes[k] = ((k === 0 || k === half ? 1 : 2) / sum) * Math.hypot(output[2 * k], output[2 * k + 1]);
  return { step: 1 / size, amplitudes };
}
