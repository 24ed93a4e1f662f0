import { normalRandom } from '../random';
import { channelOf } from '../testing/sheet';
import { type EntryOfKind } from '../workings/entries';
import { fittedIn } from '../workings/asked';
import { Evaluator } from '../workings/evaluate';
import { fitRelation } from './fit';
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
  // By hand (analysis of covariance): b = Σ wₛ Sxyₛ / Σ wₛ Sxxₛ with weights of each run’s own scatter.
  let [above, below] = [0, 0];
  for (const { x, y } of sets) {
    const weight = fitRelation(line, { x, y }).residualStandardDeviation ** -2;
    const [meanX, meanY] = [x, y].map((all) => all.reduce((sum, value) => sum + value, 0) / all.length);
    x.forEach((at, i) => {
      above += weight * (at - meanX) * (y[i] - meanY);
      below += weight * (at - meanX) ** 2;
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
    sets.map((set) => set.points),
    [0],
  );
  expect(typed.parameters[place][0].value).toBeCloseTo(shipped.parameters[0][0].value, 7);
  expect(typed.parameters[place][0].standardUncertainty).toBeCloseTo(
    shipped.parameters[0][0].standardUncertainty,
    7,
  );
});
