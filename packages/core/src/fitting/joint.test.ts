import { normalRandom } from '../random';
import { channelOf } from '../testing/sheet';
import { type Entry, type EntryOfKind } from '../workings/entries';
import { fittedIn } from '../workings/asked';
import { Evaluator } from '../workings/evaluate';
import { jointFit } from './joint';
import { relationOf } from './relations';

const line = relationOf('line');
const points = (slope: number, intercept: number, noise: number, seed: number, count = 20) => {
  const normal = normalRandom(seed);
  const x = Float64Array.from({ length: count }, (_, i) => i * 0.1);
  return { x, y: x.map((at) => intercept + slope * at + noise * normal()) };
};

test('a slope that is shared by lines of equal scatter is that of the pooled regression', () => {
  const sets = [points(2, 1, 0.05, 1), points(2, -3, 0.05, 2)];
  const { parameters } = jointFit(line, sets, [0]);
  expect(parameters.map((all) => all.length)).toEqual([1, 2]);
  // By hand (analysis of covariance): b = Σ Sxyₛ / Σ Sxxₛ where all scatter alike.
  let [above, below] = [0, 0];
  for (const { x, y } of sets) {
    const [meanX, meanY] = [x, y].map((all) => all.reduce((sum, value) => sum + value, 0) / all.length);
    x.forEach((at, i) => {
      above += (at - meanX) * (y[i] - meanY);
      below += (at - meanX) ** 2;
    });
  }
  expect(parameters[0][0].value).toBeCloseTo(above / below, 9);
});

test('the interval of a shared period covers its truth, runs of different noise among them', () => {
  const sine = relationOf('sine');
  let inside = 0;
  for (let i = 0; i < 300; i++) {
    const sets = [0.02, 0.06].map((noise, s) => {
      const normal = normalRandom(1000 * s + i);
      const x = Float64Array.from({ length: 60 }, (_, k) => k * 0.05);
      return { x, y: x.map((t) => (0.3 + 0.1 * s) * Math.sin(2 * Math.PI * t + s) + noise * normal()) };
    });
    const place = sine
      .parameterNames({ xUnit: [], yUnit: [], xQuantity: '', yQuantity: '', xSymbol: '', ySymbol: '' })
      .findIndex(({ key }) => key === 'period');
    const { parameters } = jointFit(sine, sets, [place]);
    const [{ value, standardUncertainty }] = parameters[place];
    if (Math.abs(value - 1) <= standardUncertainty) inside++;
  }
  expect(inside / 300).toBeGreaterThan(0.61);
  expect(inside / 300).toBeLessThan(0.75);
});

test('a phase that is shared near ±π is found there, not half a turn off', () => {
  const sine = relationOf('sine');
  const names = sine.parameterNames({
    xUnit: [],
    yUnit: [],
    xQuantity: '',
    yQuantity: '',
    xSymbol: '',
    ySymbol: '',
  });
  const phase = names.findIndex(({ key }) => key === 'phase');
  for (let i = 0; i < 50; i++) {
    const sets = [1, 2, 3].map((s) => {
      const normal = normalRandom(500 * s + i);
      const x = Float64Array.from({ length: 80 }, (_, k) => k * 0.03);
      return { x, y: x.map((t) => 0.4 * Math.sin(2 * Math.PI * t + Math.PI) + 0.05 * normal()) };
    });
    const [{ value }] = jointFit(sine, sets, [phase]).parameters[phase];
    expect(Math.cos(value)).toBeLessThan(-0.99);
  }
});

test('the test of whether runs have a slope in common is at its level, also through a derivative', () => {
  const entries = [
    { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 },
    {
      kind: 'fit',
      id: 'q',
      name: '',
      region: null,
      of: 'entry:v',
      against: 't',
      relation: 'line',
      weights: 'equal',
      showResiduals: false,
    },
  ] as Entry[];
  let refused = 0;
  const trials = 600;
  for (let i = 0; i < trials; i++) {
    const sets = [1, 2].map((s) => {
      const normal = normalRandom(9000 * s + i);
      const values = Float64Array.from({ length: 80 }, (_, k) => 0.35 * (k * 0.02) ** 2 + 0.0005 * normal());
      const run = { id: `r${s}`, channels: [channelOf('x', 'm', values, 0.02)] };
      return fittedIn(new Evaluator(run), { entries }, 'q').points;
    });
    if (jointFit(line, sets, [0]).chance <= 0.05) refused++;
  }
  // 5 %, and three standard deviations of 600 trials.
  expect(refused / trials).toBeLessThan(0.05 + 0.027);
});

test('says by what chance the runs differ so much', () => {
  expect(jointFit(line, [points(2, 1, 0.05, 1), points(2.4, 1, 0.05, 2)], [0]).chance).toBeLessThan(1e-4);
  expect(jointFit(line, [points(2, 1, 0.05, 1), points(2, 1, 0.05, 2)], [0]).chance).toBeGreaterThan(0.01);
  expect(() => jointFit(line, [points(2, 1, 0.05, 1)], [0])).toThrow('two of them at least');
});

test('a typed formula goes through several runs as a relation that ships does', () => {
  const entry: EntryOfKind<'formulaFit'> = {
    kind: 'formulaFit',
    id: 'f',
    name: '',
    formula: { text: 'a + k t', names: {} },
    of: 'channel:x',
    against: 't',
    region: null,
    parameters: {},
    weights: 'equal',
    showResiduals: false,
  };
  const sets = [1, 2].map((seed) => {
    const { y } = points(2, seed, 0.05, seed);
    const run = { id: `r${seed}`, channels: [channelOf('x', 'm', y, 0.1)] };
    return fittedIn(new Evaluator(run), { entries: [entry] }, 'f');
  });
  expect(sets[0].units).toBe('x in m against t in s');
  const [place] = sets[0].relation
    .parameterNames({ xUnit: [], yUnit: [], xQuantity: '', yQuantity: '', xSymbol: '', ySymbol: '' })
    .flatMap(({ key }, k) => (key === 'k' ? [k] : []));
  const typed = jointFit(
    sets[0].relation,
    sets.map((set) => set.points),
    [place],
  );
  const shipped = jointFit(
    line,
    sets.map(({ points: { x, y } }) => ({ x, y })),
    [0],
  );
  expect(typed.parameters[place][0].value).toBeCloseTo(shipped.parameters[0][0].value, 7);
  expect(typed.parameters[place][0].standardUncertainty).toBeCloseTo(
    shipped.parameters[0][0].standardUncertainty,
    7,
  );
});
