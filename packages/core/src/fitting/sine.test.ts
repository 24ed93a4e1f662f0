import { Refusal } from '../refusal';
import { readingsNoise } from '../series/noise';
import { normalRandom, uniformRandom } from '../testing/random';
import { fitRelation } from './fit';
import { sine } from './models/sine';
import { explainedAt } from './models/sineGuess';

const whole = (y: Float64Array) => ({
  seriesLength: y.length,
  indices: Int32Array.from(y.keys()),
  noise: readingsNoise(y),
});

function swing(cycles: number, count: number, noise: number, seed: number) {
  const normal = normalRandom(seed);
  const phase = 2 * Math.PI * uniformRandom(seed + 1000)();
  const x = Float64Array.from({ length: count }, (_, i) => 3 + (8 * i) / (count - 1));
  const y = x.map(
    (t) => 0.6 + 0.04 * Math.sin((2 * Math.PI * cycles * (t - 3)) / 8 + phase) + 0.04 * noise * normal(),
  );
  return { x, y };
}

describe('a sine without a typed guess', () => {
  const cases = [0.6, 0.8, 1, 1.3, 2, 3.5, 5.8, 6.3, 10, 17.7, 29, 44.4, 60].flatMap((cycles) =>
    [0.01, 0.1, 1 / 3].map((noise) => ({ cycles, noise })),
  );
  test.each(cases)(
    'finds the global minimum for $cycles cycles with noise $noise of the amplitude',
    ({ cycles, noise }) => {
      for (let seed = 1; seed <= 3; seed++) {
        const { x, y } = swing(cycles, 400, noise, seed + Math.round(cycles * 100));
        const fit = fitRelation(sine, { x, y }, whole(y));
        // The truth by brute force: the sum of squares over a fine grid of all frequencies, offset and both sines solved.
        const u = x.map((t) => (t - 7) / 4);
        let least = Infinity;
        for (let tried = 0.4; tried < 199; tried += 0.05) {
          const { total, explained } = explainedAt(u, y, Math.PI * tried);
          least = Math.min(least, total - explained);
        }
        expect(fit.residualSumOfSquares).toBeLessThanOrEqual(least * (1 + 1e-9));
      }
    },
  );

  test('recovers a noiseless swing exactly', () => {
    const x = Float64Array.from({ length: 300 }, (_, i) => i * 0.02);
    const y = x.map((t) => 0.0006 + 0.0414 * Math.sin((2 * Math.PI * t) / 1.1862 + 0.5));
    const fit = fitRelation(sine, { x, y }, whole(y));
    [0.0414, 1.1862, 0.5, 0.0006].forEach((truth, i) => expect(fit.parameters[i]).toBeCloseTo(truth, 10));
  });

  test('refuses constant readings, a ramp of no swing, and five readings or fewer', () => {
    const x = Float64Array.from({ length: 50 }, (_, i) => i);
    const flat = new Float64Array(50).fill(0.312);
    expect(() => fitRelation(sine, { x, y: flat }, whole(flat))).toThrow('the same (0.312)');
    const few = Float64Array.from([1, 2, 1, 0]);
    expect(() => fitRelation(sine, { x: x.slice(0, 4), y: few }, whole(few))).toThrow('at least 5 readings');
    const ramp = x.map((t) => 0.2 * t);
    expect(() => fitRelation(sine, { x, y: ramp }, whole(ramp))).toThrow(Refusal);
  });
});
