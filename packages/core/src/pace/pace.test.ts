import { repetitions } from '../testing/effort';
import { regular } from '../series/sampling';
import { readingsSeries } from '../series/series';
import { parseUnit } from '../units/unit';
import { evaluate } from '../workings/evaluate';
import { closeness } from './closeness';
import { generatedPositions, generatedSpeeds, walkingRoom, walkingSpeed } from './generate';
import { simplified, simplifiedTo } from './simplify';
import { type Pace, type PacePoint, segmentsOf, targetAt, targetAtAll } from './target';

const room = { ...walkingRoom, fastest: walkingSpeed };
const seeds = Array.from({ length: repetitions(80, 200) }, (_, i) => i);

describe.each([1, 2, 3, 4])('a line of level %p', (level) => {
  test('stays where a person can walk, at a pace that a person can hold, and begins and ends at rest', () => {
    for (const seed of seeds) {
      const points = generatedPositions(seed, level, room);
      points.forEach(({ t, value }, i) => {
        expect(value).toBeGreaterThanOrEqual(room.low - 1e-9);
        expect(value).toBeLessThanOrEqual(room.high + 1e-9);
        if (i === 0) return;
        const before = points[i - 1];
        expect(t).toBeGreaterThan(before.t);
        // A half cosine is π/2 times as steep in its middle as in the mean.
        expect(Math.abs((value - before.value) / (t - before.t))).toBeLessThan(
          (Math.PI / 2) * room.fastest + 0.01,
        );
      });
      expect(points[1].value).toBe(points[0].value);
      expect(points.at(-1)?.value).toBe(points.at(-2)?.value);
    }
  });

  test('is the same from the same seed, and another from another one', () => {
    expect(generatedPositions(5, level, room)).toEqual(generatedPositions(5, level, room));
    expect(generatedPositions(5, level, room)).not.toEqual(generatedPositions(6, level, room));
  });

  test('of speeds keeps whoever follows it in the room', () => {
    for (const seed of seeds) {
      const { points, start } = generatedSpeeds(seed, level, room);
      let place = start;
      for (let i = 1; i < points.length; i++) {
        place += ((points[i].value + points[i - 1].value) / 2) * (points[i].t - points[i - 1].t);
        expect(place).toBeGreaterThan(room.low - 0.02);
        expect(place).toBeLessThan(room.high + 0.02);
        expect(Math.abs(points[i].value)).toBeLessThanOrEqual(room.fastest);
      }
    }
  });
});

const line: PacePoint[] = [
  { t: 0, value: 1 },
  { t: 4, value: 1 },
  { t: 6, value: 2 },
  { t: 8, value: 3 },
  { t: 8.2, value: 2.9 },
  { t: 12, value: 2.9 },
];

test('the line is straight from point to point and flat beyond its ends', () => {
  const times = [-1, 0, 2, 5, 7, 11, 20];
  const values = [1, 1, 1, 1.5, 2.5, 2.9, 2.9];
  expect(times.map((t) => targetAt(line, t))).toEqual(values);
  expect([...targetAtAll(line, times)]).toEqual(values);
});

test('its straight parts: what goes on in the same way is one, a corner is none', () => {
  expect(segmentsOf(line)).toEqual([
    { from: 0, to: 4, slope: 0 },
    { from: 4, to: 8, slope: 0.5 },
    { from: 8.2, to: 12, slope: 0 },
  ]);
});

const pace: Pace = { quantity: 'x', of: 'reading', unit: parseUnit('m'), points: line };
const seriesOf = (f: (t: number) => number, unit = 'm') =>
  readingsSeries({
    symbol: 'x',
    quantity: 'position',
    unit: parseUnit(unit),
    timeUnit: parseUnit('s'),
    sampling: regular(0, 0.02, 601),
    values: Float64Array.from({ length: 601 }, (_, i) => f(i * 0.02)),
  });

test('closeness is the rms difference, worked by hand', () => {
  // 0.1 m off throughout: rms 0.1 m, mean 0.1 m. Half of it above, half below: rms 0.1 m, mean 0.
  expect(
    closeness(
      seriesOf((t) => targetAt(line, t) + 0.1),
      pace,
    ),
  ).toMatchObject({ count: 601 });
  expect(
    closeness(
      seriesOf((t) => targetAt(line, t) + 0.1),
      pace,
    ).rms,
  ).toBeCloseTo(0.1, 12);
  const both = closeness(
    seriesOf((t) => targetAt(line, t) + (Math.round(t / 0.02) % 2 === 0 ? 0.1 : -0.1)),
    pace,
  );
  expect(both.rms).toBeCloseTo(0.1, 12);
  expect(both.mean).toBeCloseTo(0.1 / 601, 9);
  // In centimetres it is a hundred times as much.
  expect(
    closeness(
      seriesOf((t) => 100 * targetAt(line, t) + 10, 'cm'),
      pace,
    ).rms,
  ).toBeCloseTo(10, 9);
});

test('slopes along the line come with their uncertainties beside what they were to be', () => {
  const noise = (i: number) => 0.002 * Math.sin(i * 12.9898 + 78.233 * i * i);
  const values = Float64Array.from({ length: 601 }, (_, i) => 1.1 * targetAt(line, i * 0.02) + noise(i));
  const { outcomes } = evaluate(
    {
      entries: [
        { kind: 'paceSlopes', id: 's', name: '', of: 'channel:x' },
        { kind: 'closeness', id: 'c', name: '', of: 'channel:x' },
      ],
    },
    {
      id: 'run',
      pace,
      channels: [
        {
          key: 'x',
          symbol: 'x',
          quantity: 'position',
          unit: parseUnit('m'),
          timeUnit: parseUnit('s'),
          sampling: regular(0, 0.02, 601),
          values,
          low: null,
          high: null,
          noise: null,
        },
      ],
    },
  );
  const slopes = outcomes.get('s');
  if (slopes?.kind !== 'results') throw new Error('no slopes');
  const value = (key: string) => slopes.results.find((result) => result.key === key)?.quantity;
  expect(value('target2')?.value).toBeCloseTo(0.5, 12);
  expect(value('own2')?.value).toBeCloseTo(0.55, 2);
  expect(value('own2')?.standardUncertainty).toBeGreaterThan(0);
  expect(slopes.results.filter(({ key }) => key.startsWith('own'))).toHaveLength(3);
  expect(outcomes.get('c')).toMatchObject({ kind: 'results' });
});

test('a run that was to follow nothing, or something else, says so', () => {
  const run = (own: Pace | null) => ({
    id: 'run',
    pace: own,
    channels: [
      {
        key: 'x',
        symbol: 'x',
        quantity: 'position',
        unit: parseUnit('m'),
        timeUnit: parseUnit('s'),
        sampling: regular(0, 1, 3),
        values: Float64Array.of(1, 2, 3),
        low: null,
        high: null,
        noise: null,
      },
    ],
  });
  const sentence = (own: Pace | null) => {
    const outcome = evaluate(
      { entries: [{ kind: 'closeness', id: 'c', name: '', of: 'channel:x' }] },
      run(own),
    ).outcomes.get('c');
    return outcome?.kind === 'refused' ? outcome.sentence : '';
  };
  expect(sentence(null)).toBe('This run was to follow no line.');
  expect(sentence({ ...pace, quantity: 'y' })).toContain('a line of y, not of x');
});

test('a drawn line keeps its corners and loses what a hand trembles', () => {
  const drawn = Array.from({ length: 200 }, (_, i) => ({
    t: i / 20,
    value: targetAt(line, i / 20) + 0.004 * Math.sin(i * 3),
  }));
  const found = simplified(drawn, 0.05);
  expect(found.length).toBeLessThan(8);
  for (const { t, value } of drawn)
    expect(Math.abs(targetAt(found, t) - value)).toBeLessThanOrEqual(0.05 + 1e-12);
  expect(simplifiedTo(drawn, 5, 1e-6).length).toBeLessThanOrEqual(5);
});
