import numpy from '../../reference/numpySpectrum.json';
import { normalRandom, uniformRandom } from '../random';
import { amplitudeSpectrum } from './amplitudes';
import { type SpectrumWindow, windowWeight } from './windows';

const values = Float64Array.from(numpy.values);

// Source: numpy.fft.rfft with scipy's periodic Hann window; versions stand in the file.
test.each([
  ['hann', 1, numpy.hann1],
  ['hann', 4, numpy.hann4],
  ['none', 1, numpy.none1],
  ['none', 4, numpy.none4],
] as const)('window %s with padding to %i times equals numpy number by number', (window, padding, truth) => {
  const { amplitudes } = amplitudeSpectrum(values, window, padding);
  expect(amplitudes).toHaveLength(truth.length);
  truth.forEach((amplitude, k) => expect(amplitudes[k]).toBeCloseTo(amplitude, 10));
});

test('sines on whole cycles stand as high as they are, whatever the window', () => {
  const n = 256;
  const wave = Float64Array.from(
    { length: n },
    (_, i) => 1.5 * Math.sin((2 * Math.PI * 10 * i) / n) + 0.4 * Math.cos((2 * Math.PI * 40 * i) / n + 1),
  );
  for (const window of ['hann', 'none'] as const) {
    const { amplitudes, step } = amplitudeSpectrum(wave, window, 1);
    expect(step).toBe(1 / n);
    expect(amplitudes[10]).toBeCloseTo(1.5, 12);
    expect(amplitudes[40]).toBeCloseTo(0.4, 12);
    expect(amplitudes[25]).toBeCloseTo(0, 12);
  }
});

// M.-A. Parseval's theorem for the DFT: Σ|w y|² = (1/N) Σ|X|², here from the one-sided amplitudes.
test.each(['hann', 'none'] as const)(
  'what readings hold is in their spectrum (Parseval), window %s',
  (window: SpectrumWindow) => {
    for (let seed = 1; seed <= 20; seed++) {
      const n = 8 + Math.floor(uniformRandom(seed)() * 500);
      const random = normalRandom(seed);
      const noise = Float64Array.from({ length: n }, () => random());
      const { amplitudes } = amplitudeSpectrum(noise, window, 2);
      const size = 2 * (amplitudes.length - 1);
      let energy = 0;
      let sum = 0;
      noise.forEach((value, i) => {
        const weight = windowWeight(window, i / n);
        energy += (weight * value) ** 2;
        sum += weight;
      });
      let inSpectrum = 0;
      amplitudes.forEach((amplitude, k) => {
        const isEnd = k === 0 || k === size / 2;
        inSpectrum += isEnd ? (amplitude * sum) ** 2 : 2 * ((amplitude * sum) / 2) ** 2;
      });
      expect(inSpectrum / size / energy).toBeCloseTo(1, 10);
    }
  },
);
