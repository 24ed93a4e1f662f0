import { normalRandom, uniformRandom } from '../random';
import { toneAt } from './tone';
import { type SpectrumWindow, windowWeight } from './windows';

const interval = 0.02;

function toneOf(
  wave: (t: number) => number,
  count: number,
  window: SpectrumWindow,
  start: number,
  at: (i: number) => number = (i) => i * interval,
) {
  const times = Float64Array.from({ length: count }, (_, i) => at(i));
  const duration = count * interval;
  return toneAt(
    times,
    times.map(wave),
    Float64Array.from(times, (t) => windowWeight(window, t / duration)),
    start,
    1 / duration,
  );
}

test('a sine comes back exactly, from one and a half periods on, with any offset and phase', () => {
  const random = uniformRandom(3);
  for (let i = 0; i < 300; i++) {
    const count = 60 + Math.floor(400 * random());
    const frequency = (1.5 + 10 * random()) / (count * interval);
    const [amplitude, phase, offset] = [0.1 + random(), 7 * random(), 10 * random() - 5];
    const found = toneOf(
      (t) => offset + amplitude * Math.sin(2 * Math.PI * frequency * t + phase),
      count,
      i % 2 === 0 ? 'hann' : 'none',
      frequency + (0.3 * (random() - 0.5)) / (count * interval),
    );
    expect(found?.frequency).toBeCloseTo(frequency, 7);
    expect(found?.amplitude).toBeCloseTo(amplitude, 6);
  }
});

test('effects of single readings are what a shifted reading does', () => {
  const wave = (t: number) => 0.4 + Math.sin(2 * Math.PI * 2.1 * t + 0.3);
  const plain = toneOf(wave, 200, 'hann', 2.1);
  if (plain === null) throw new Error('no tone');
  for (const moved of [20, 77, 100, 149]) {
    const small = 1e-6;
    const shifted = toneOf(
      (t) => wave(t) + (Math.round(t / interval) === moved ? small : 0),
      200,
      'hann',
      2.1,
    );
    if (shifted === null) throw new Error('no tone');
    const scale = Math.max(...plain.frequencyBy.map(Math.abs));
    expect((shifted.frequency - plain.frequency) / small / scale).toBeCloseTo(
      plain.frequencyBy[moved] / scale,
      2,
    );
    expect((shifted.amplitude - plain.amplitude) / small).toBeCloseTo(plain.amplitudeBy[moved], 3);
  }
});

// D. C. Rife and R. R. Boorstyn (1974): var(ω) ≥ 24 σ² / (A² N (N² − 1)) rad² per reading² for a real sine in white noise.
test('for equal weights the uncertainty is the bound of Rife and Boorstyn', () => {
  const count = 400;
  const found = toneOf((t) => 2 * Math.sin(2 * Math.PI * 5.3 * t), count, 'none', 5.3);
  const variance = (found?.frequencyBy ?? new Float64Array(0)).reduce((sum, by) => sum + by * by, 0);
  const bound = 24 / (4 * count * (count * count - 1)) / (2 * Math.PI * interval) ** 2;
  expect(variance / bound).toBeCloseTo(1, 2);
});

test('of white noise alone a peak is refused or lies in the lobe where it was looked for', () => {
  const random = normalRandom(5);
  const noise = Float64Array.from({ length: 300 }, () => random());
  const found = toneOf((t) => noise[Math.round(t / interval)], 300, 'hann', 7);
  if (found !== null) expect(Math.abs(found.frequency - 7)).toBeLessThanOrEqual(1 / 6);
});
