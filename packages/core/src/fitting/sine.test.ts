import { Refusal, orRefusal } from '../refusal';
import { normalRandom, uniformRandom } from '../random';
import { fitModel, fitRelation } from './fit';
import { line } from './models/line';
import { sine } from './models/sine';
import { sineOnLine } from './models/sineOnLine';
import { isThorough, repetitions } from '../testing/effort';
import { explainedAt } from './models/swingGuess';

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
      // A dip of the sum of squares is about one cycle wide.
      const step = isThorough ? 0.05 : 0.25;
      for (let seed = 1; seed <= 3; seed++) {
        const { x, y } = swing(cycles, 400, noise, seed + Math.round(cycles * 100));
        const fit = fitRelation(sine, { x, y });
        // The truth by brute force: the sum of squares over a fine grid of all frequencies, offset and both sines solved.
        const u = x.map((t) => (t - 7) / 4);
        let least = Infinity;
        for (let tried = 0.4; tried < 199; tried += step) {
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
    const fit = fitRelation(sine, { x, y });
    [0.0414, 1.1862, 0.5, 0.0006].forEach((truth, i) => expect(fit.parameters[i]).toBeCloseTo(truth, 10));
  });

  test('refuses constant readings, a ramp of no swing, and five readings or fewer', () => {
    const x = Float64Array.from({ length: 50 }, (_, i) => i);
    const flat = new Float64Array(50).fill(0.312);
    expect(() => fitRelation(sine, { x, y: flat })).toThrow('the same (0.312)');
    const few = Float64Array.from([1, 2, 1, 0]);
    expect(() => fitRelation(sine, { x: x.slice(0, 4), y: few })).toThrow('at least 5 readings');
    const ramp = x.map((t) => 0.2 * t);
    expect(() => fitRelation(sine, { x, y: ramp })).toThrow(Refusal);
  });
});

describe('a sine must earn its place', () => {
  const grid = (count: number) => Float64Array.from({ length: count }, (_, i) => i * 0.02);
  const refusedShare = (
    make: (x: Float64Array, normal: () => number, seed: number) => Float64Array,
    tries: number,
  ) => {
    let refused = 0;
    let sentence = '';
    for (let seed = 1; seed <= tries; seed++) {
      const x = grid(200);
      const y = make(x, normalRandom(seed), seed);
      try {
        fitRelation(sine, { x, y });
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        sentence = error.message;
        refused++;
      }
    }
    return { share: refused / tries, sentence };
  };

  test('pure noise has no period', () => {
    const { share, sentence } = refusedShare((x, normal) => x.map(() => normal()), 200);
    expect(share).toBeGreaterThan(0.98);
    expect(sentence).toContain('No swing stands out of the noise');
  });

  test('a fiftieth to a tenth of a swing has no period', () => {
    const { share } = refusedShare(
      (x, normal, seed) => {
        const random = uniformRandom(seed);
        const cycles = 0.02 + 0.08 * random();
        const phase = 2 * Math.PI * random();
        return x.map((t) => Math.sin((2 * Math.PI * cycles * t) / 4 + phase) + 0.01 * normal());
      },
      repetitions(40, 120),
    );
    expect(share).toBeGreaterThan(0.98);
  });

  test.each([41, 60, 260, 1000, 5000])(
    'of %p readings the frequency below half the rate is found, never its image',
    (count) => {
      const random = uniformRandom(count);
      for (let tries = 0; tries < 25; tries++) {
        const cycles = 1 + random() * Math.min(count / 2 - 3, 200);
        const phase = 2 * Math.PI * random();
        const normal = normalRandom(tries + 1);
        const x = Float64Array.from({ length: count }, (_, i) => (10 * i) / (count - 1));
        const y = x.map((t) => Math.sin((2 * Math.PI * cycles * t) / 10 + phase) + 0.05 * normal());
        const { parameters } = fitRelation(sine, { x, y });
        expect(Math.abs(10 / parameters[1] - cycles)).toBeLessThan(0.05);
      }
    },
  );

  test('a swing upon a drift is told to take its line along, and that relation finds it', () => {
    const normal = normalRandom(3);
    const x = grid(400);
    const y = x.map((t) => 0.05 * t + 0.04 * Math.sin((2 * Math.PI * t) / 1.2) + 0.0003 * normal());
    const found = orRefusal(() => fitRelation(sine, { x, y }));
    const said = found instanceof Refusal ? found.message : found.remarks.join();
    expect(said).toContain('sine on a line');
    const fit = fitRelation(sineOnLine, { x, y });
    expect(fit.parameters[1]).toBeCloseTo(1.2, 3);
    expect(fit.parameters[4]).toBeCloseTo(0.05, 4);
  });

  test('a small drift under a long swing is said', () => {
    const normal = normalRandom(4);
    const x = grid(400);
    const y = x.map((t) => 0.002 * t + 0.04 * Math.sin((2 * Math.PI * t) / 1.2) + 0.0003 * normal());
    expect(fitRelation(sine, { x, y }).remarks.join()).toContain('drift');
  });

  test('while a hand moves, the search from the last solution ends at the same place', () => {
    const { x, y } = swing(7.3, 2000, 0.05, 5);
    const rest = fitRelation(sine, { x, y });
    const moved = fitRelation(sine, { x: x.slice(0, 1900), y: y.slice(0, 1900) }, undefined, {
      near: rest.parameters,
      moving: true,
    });
    const atRest = fitRelation(sine, { x: x.slice(0, 1900), y: y.slice(0, 1900) });
    moved.parameters.forEach((value, i) =>
      expect(Math.abs(value - atRest.parameters[i])).toBeLessThan(0.02 * atRest.standardUncertainties[i]),
    );
  });
});

test('points that are no numbers are refused, never fitted', () => {
  const x = Float64Array.of(1, 2, NaN, 4, 5, 6);
  const y = Float64Array.of(1, 2, 3, 4, 5, 6.1);
  expect(() => fitRelation(line, { x, y })).toThrow('The place of point 3 is NaN');
  expect(() => fitRelation(line, { x: y, y: x })).toThrow('The value of point 3 is NaN');
});

test('a model that does not feel a parameter at its start is fitted all the same', () => {
  // a·b·x with a = 0 does not feel b; with an offset c it can be left.
  const x = Float64Array.from({ length: 20 }, (_, i) => i / 10);
  const y = x.map((at) => 2 * Math.exp(-1.5 * at));
  const { parameters } = fitModel(
    ([a, b], first, out, jacobian) => {
      for (let i = 0; i < out.length; i++) {
        const decay = Math.exp(-b * x[first + i]);
        out[i] = a * decay;
        if (jacobian === null) continue;
        jacobian[0][i] = decay;
        jacobian[1][i] = -a * x[first + i] * decay;
      }
    },
    y,
    [0, 1],
  );
  expect(parameters[0]).toBeCloseTo(2, 8);
  expect(parameters[1]).toBeCloseTo(1.5, 8);
});
