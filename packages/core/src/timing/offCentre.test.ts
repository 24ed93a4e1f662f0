import { uniformRandom } from '../random';
import { parseUnit } from '../units/unit';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { constantEntry } from '../testing/sheet';
import { chordShare } from './offCentre';

test.each([0.001, 0.0099, 0.0101, 0.1, 0.3, 0.49])(
  'mean and spread of the chord at up to %p diameters are those of a sum over the circle',
  (most) => {
    // Simpson's rule over the distances, with the substitution y = most · s.
    const steps = 20_000;
    const chord = (s: number) => Math.sqrt(1 - 4 * (most * s) ** 2);
    let [sum, squares] = [0, 0];
    for (let i = 0; i <= steps; i++) {
      const weight = (i === 0 || i === steps ? 1 : i % 2 === 1 ? 4 : 2) / (3 * steps);
      sum += weight * chord(i / steps);
      squares += weight * (chord(i / steps) - 1) ** 2;
    }
    const { mean, standardDeviation } = chordShare(most);
    expect(mean).toBeCloseTo(sum, 10);
    const exact = Math.sqrt(squares - (sum - 1) ** 2);
    expect(standardDeviation / exact).toBeCloseTo(1, 3);
  },
);

const thrown = (distance: number, offCentre: number | undefined) => {
  const diameter = 0.04;
  const speed = 2;
  const blocked = Math.sqrt(diameter ** 2 - 4 * distance ** 2) / speed;
  const entries = [
    constantEntry('d', 40, 0, 'mm', 'd'),
    {
      kind: 'flagSpeed',
      id: 'v',
      name: 'v',
      of: 'channel:G',
      length: 'result:d/value',
      ...(offCentre === undefined ? {} : { offCentre }),
    },
    { kind: 'statistics', id: 'm', name: 'm', of: 'entry:v', region: null },
  ] as unknown as Entry[];
  return evaluate(
    { entries },
    {
      id: 'r',
      channels: [
        {
          key: 'G',
          symbol: 'G',
          quantity: 'blocked',
          unit: [],
          timeUnit: parseUnit('s'),
          sampling: {
            kind: 'events',
            times: Float64Array.of(1, 1 + blocked),
            states: Uint8Array.of(1, 0),
            resolution: 1e-6,
          },
          values: Float64Array.of(1, 0),
          low: null,
          high: null,
          noise: null,
        },
      ],
    },
  ).outcomes;
};

const speedOf = (distance: number, offCentre?: number) => {
  const outcome = thrown(distance, offCentre).get('v');
  if (outcome?.kind !== 'series') throw new Error(JSON.stringify(outcome));
  return {
    value: outcome.series.values[0],
    u: outcome.series.uncertainties?.[0] ?? NaN,
    notes: outcome.notes,
  };
};

test('a ball that misses the middle looks too fast; the allowance takes the bias off and says how uncertain that leaves it', () => {
  // 10 mm off the middle of a ball of 40 mm: the chord is √(1 − ¼) of it.
  expect(speedOf(0.01).value).toBeCloseTo(2 / Math.sqrt(0.75), 9);
  const uniform = uniformRandom(5);
  let inside = 0;
  let sum = 0;
  const repetitions = 4000;
  for (let i = 0; i < repetitions; i++) {
    const { value, u } = speedOf(0.01 * uniform(), 10);
    sum += value / repetitions;
    if (Math.abs(value - 2) <= u) inside++;
  }
  expect(sum).toBeCloseTo(2, 2);
  // The chord is no normal distribution: its standard deviation holds 55 to 80 of 100 cases.
  expect(inside / repetitions).toBeGreaterThan(0.55);
  expect(inside / repetitions).toBeLessThan(0.8);
  expect(speedOf(0, 10).notes.join(' ')).toMatch(/4\.\d % shorter/);
});

test('an allowance that lets the ball miss the beam is refused with what would be right', () => {
  const outcome = thrown(0, 20).get('v');
  expect(outcome).toMatchObject({
    kind: 'refused',
    sentence: expect.stringContaining('less than 20 mm') as string,
  });
});
