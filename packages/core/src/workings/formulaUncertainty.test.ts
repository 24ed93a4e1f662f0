import { normalRandom } from '../random';
import { halfWidth } from '../results/quantity';
import { type Entry } from './entries';
import { type RunData } from './run';
import {
  interval,
  channel,
  made,
  constant,
  series,
  result,
  region,
  velocity,
  mean,
  outcomeIn,
  quantityIn,
  acceleration,
} from '../testing/formulaSheets';

describe('what ± means', () => {
  const repetitions = 1000;
  const share = (truth: number, quantities: (i: number) => ReturnType<typeof quantityIn>) => {
    let inside = 0;
    for (let i = 0; i < repetitions; i++) {
      const quantity = quantities(i);
      if (Math.abs(quantity.value - truth) <= (halfWidth(quantity) ?? 0)) inside++;
    }
    return inside / repetitions;
  };
  const random = normalRandom(11);
  const noisyCart = () => made(100, (t) => (acceleration * t * t) / 2 + 0.0005 * random());

  test('the mean of a kinetic energy from noisy positions and an uncertain mass covers 65 to 71 %', () => {
    const entries = (m: number) => [
      constant('m', m, 0.004, 'kg'),
      velocity,
      region,
      series('K', '1/2 m v^2'),
      mean('entry:s-K'),
    ];
    let truth = 0;
    for (let i = 10; i <= 80; i++) truth += (0.5 * 0.5 * (acceleration * i * interval) ** 2) / 71;
    const found = share(truth, () =>
      quantityIn(
        outcomeIn(
          entries(0.5 + 0.004 * random()),
          { id: 'r', channels: [channel('x', 'm', noisyCart())] },
          'mean entry:s-K',
        ),
      ),
    );
    expect(found).toBeGreaterThan(0.65);
    expect(found).toBeLessThan(0.71);
  }, 60_000);

  test('the mean of a power from a noisy force and a noisy position covers 65 to 71 %', () => {
    const entries = [velocity, region, series('P', 'F v'), mean('entry:s-P')];
    let truth = 0;
    for (let i = 10; i <= 80; i++) truth += ((1 + 0.3 * i * interval) * acceleration * i * interval) / 71;
    const found = share(truth, () =>
      quantityIn(
        outcomeIn(
          entries,
          {
            id: 'r',
            channels: [
              channel('x', 'm', noisyCart()),
              channel(
                'F',
                'N',
                made(100, (t) => 1 + 0.3 * t + 0.05 * random()),
              ),
            ],
          },
          'mean entry:s-P',
        ),
      ),
    );
    expect(found).toBeGreaterThan(0.65);
    expect(found).toBeLessThan(0.71);
  }, 60_000);

  test('a slope of a series from two channels, and a formula of two correlated results, cover 65 to 71 %', () => {
    const slope: Entry = { kind: 'slope', id: 'k', name: 'k', of: 'entry:s-y', against: 't', region: 'A' };
    const entries = [
      region,
      series('y', 'x + F / (2 [N/m])'),
      slope,
      mean('entry:s-y', 'middle'),
      result('q', 'middle - k (0.4 [s])'),
    ];
    const run = (): RunData => ({
      id: 'r',
      channels: [
        channel(
          'x',
          'm',
          made(100, (t) => 0.5 * t + 0.004 * random()),
        ),
        channel(
          'F',
          'N',
          made(100, (t) => 1 + 0.2 * t + 0.006 * random()),
        ),
      ],
    });
    const bySlope = share(0.6, () => quantityIn(outcomeIn(entries, run(), 'k')));
    // y at 0.5 s, 0.4 s before the middle of the region.
    const byFormula = share(0.8, () => quantityIn(outcomeIn(entries, run(), 'r-q')));
    for (const found of [bySlope, byFormula]) {
      expect(found).toBeGreaterThan(0.65);
      expect(found).toBeLessThan(0.71);
    }
  }, 60_000);

  test('the deviation of readings from their own mean has none of the uncertainty that both share', () => {
    const entries = [region, mean('channel:x', 'middle'), series('d', 'x - middle'), mean('entry:s-d')];
    const run: RunData = {
      id: 'r',
      channels: [
        channel(
          'x',
          'm',
          made(100, () => 1 + 0.01 * random()),
        ),
      ],
    };
    expect(quantityIn(outcomeIn(entries, run, 'mean entry:s-d')).standardUncertainty ?? 0).toBeLessThan(
      1e-12,
    );
  });
});

test('what two means of one quantity owe to their own readings counts in a series that holds both', () => {
  const random = normalRandom(5);
  const force = made(100, () => 2 + 0.1 * random());
  const part = (letter: string, start: number, end: number): Entry => ({
    kind: 'region',
    id: letter,
    name: '',
    letter,
    along: 't',
    start,
    end,
  });
  const meanIn = (name: string, region: string): Entry => ({
    kind: 'statistics',
    id: name,
    name,
    of: 'channel:F',
    region,
  });
  const entries: Entry[] = [
    part('A', 0, 0.5),
    part('B', 1, 1.5),
    meanIn('a', 'A'),
    meanIn('b', 'B'),
    series('y', 'x (1 + (a - b) / (1 [N]))'),
    result('d', 'a - b'),
    { kind: 'statistics', id: 'm', name: '', of: 'entry:s-y', region: null },
  ];
  const run: RunData = {
    id: 'r',
    channels: [
      channel(
        'x',
        'm',
        made(100, () => 1),
      ),
      channel('F', 'N', force),
    ],
  };
  const difference = quantityIn(outcomeIn(entries, run, 'r-d')).standardUncertainty ?? NaN;
  // x is one and without noise: all of the mean's uncertainty is that of the difference.
  expect(quantityIn(outcomeIn(entries, run, 'm')).standardUncertainty).toBeCloseTo(difference, 9);
  expect(difference).toBeGreaterThan(0.01);
});

test('a missing reading that is bridged takes no uncertainty away from an area under a formula', () => {
  const values = made(100, (t) => 1 + t);
  values[40] = NaN;
  const entries: Entry[] = [
    region,
    constant('m', 2, 0.02, 'kg'),
    series('p', 'm x'),
    { kind: 'area', id: 'a', name: '', of: 'entry:s-p', against: 't', region: 'A' },
  ];
  const area = quantityIn(outcomeIn(entries, { id: 'r', channels: [channel('x', 'm', values)] }, 'a'));
  expect((area.standardUncertainty ?? 0) / area.value).toBeCloseTo(0.01, 4);
});
