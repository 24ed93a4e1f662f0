import { normalRandom } from '../random';
import { regular } from '../series/sampling';
import { evaluate, Evaluator } from '../workings/evaluate';
import { type Workings } from '../workings/entries';
import { type ChannelData } from '../workings/run';
import { parseUnit } from '../units/unit';

const workings: Workings = {
  entries: [
    { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 1, end: 2 },
    { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 },
    { kind: 'derivative', id: 'a', name: 'a', of: 'entry:v', windowPoints: 5 },
    { kind: 'integral', id: 's', name: 's', of: 'entry:v' },
    { kind: 'statistics', id: 'm', name: '', region: 'A', of: 'entry:a' },
    { kind: 'area', id: 'f', name: '', region: 'A', of: 'entry:v', against: 't' },
    { kind: 'slope', id: 'k', name: '', region: null, of: 'channel:x', against: 't' },
  ],
};

const normal = normalRandom(8);
const readings = Float64Array.from({ length: 1200 }, (_, i) =>
  i === 333 || (i > 700 && i < 712) ? NaN : Math.sin(i * 0.05) + 0.01 * normal(),
);
const channel = (count: number): ChannelData => ({
  key: 'x',
  symbol: 'x',
  quantity: 'position',
  unit: parseUnit('m'),
  timeUnit: parseUnit('s'),
  sampling: regular(0, 0.01, count),
  values: readings.subarray(0, count),
  low: null,
  high: null,
  noise: null,
});

test('a run that grows frame by frame says at every moment what a fresh evaluation of it says', () => {
  const evaluator = new Evaluator({ id: 'r', channels: [channel(1)] });
  for (const count of [1, 3, 20, 21, 150, 151, 199, 260, 340, 700, 711, 713, 900, 1200]) {
    evaluator.grow('x', regular(0, 0.01, count), readings.subarray(0, count));
    const fresh = evaluate(workings, { id: 'r', channels: [channel(count)] });
    const grown = evaluator.evaluate(workings);
    for (const { id } of workings.entries) {
      const [a, b] = [grown.outcomes.get(id), fresh.outcomes.get(id)];
      expect(a?.kind).toBe(b?.kind);
      if (a?.kind === 'series' && b?.kind === 'series') {
        expect(a.series.values).toHaveLength(b.series.values.length);
        a.series.values.forEach((value, i) => {
          if (Number.isNaN(b.series.values[i])) expect(value).toBeNaN();
          else expect(value).toBeCloseTo(b.series.values[i], 9);
        });
      }
      if (a?.kind === 'results' && b?.kind === 'results')
        a.results.forEach(({ quantity }, i) => {
          expect(quantity.value).toBeCloseTo(b.results[i].quantity.value, 9);
          expect(quantity.standardUncertainty ?? 0).toBeCloseTo(
            b.results[i].quantity.standardUncertainty ?? 0,
            9,
          );
        });
      if (a?.kind === 'refused' && b?.kind === 'refused') expect(a.sentence).toBe(b.sentence);
    }
  }
});

test('what a settled region says is not worked out again when readings come after it', () => {
  const evaluator = new Evaluator({ id: 'r', channels: [channel(400)] });
  const before = evaluator.evaluate(workings).outcomes;
  evaluator.grow('x', regular(0, 0.01, 600), readings.subarray(0, 600));
  const after = evaluator.evaluate(workings).outcomes;
  for (const id of ['m', 'f']) expect(after.get(id)).toBe(before.get(id));
  expect(after.get('k')).not.toBe(before.get('k'));
});
