import { parseUnit } from '../units/unit';
import { normalRandom } from '../random';
import { entryOf } from '../testing/truth/sheets';
import { channelOf } from '../testing/sheet';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type ChannelData } from '../workings/run';

const fitted = (channels: ChannelData[], fields: object = {}) => {
  const entry = entryOf('fit', 'q', {
    of: 'channel:y',
    against: 't',
    relation: 'line',
    showResiduals: false,
    weights: 'equal',
    ...fields,
  });
  const outcome = evaluate({ entries: [entry as Entry] }, { id: 'r', channels }).outcomes.get('q');
  if (outcome?.kind !== 'results' || outcome.fitted === null) throw new Error(JSON.stringify(outcome));
  return { results: outcome.results, fitted: outcome.fitted };
};

const points = (y: number[], uncertainties?: number[]): ChannelData => ({
  ...channelOf('y', 'm', Float64Array.from(y), 1),
  ...(uncertainties === undefined ? {} : { uncertainties: Float64Array.from(uncertainties) }),
});

// SciPy 1.17.1: curve_fit(lambda x, a, b: a * x + b, x, y, sigma=s, absolute_sigma=…), and the root of the covariance’s diagonal.
test.each([
  ['own', 0.022631166718223697, 0.07977214529894588],
  ['relative', 0.024216730621789213, 0.0853610676762505],
])(
  'points that count by their uncertainties (%s): slope, intercept and what they are uncertain by',
  (weights, ofSlope, ofIntercept) => {
    const y = points([1.1, 2.9, 5.2, 7.1, 8.8, 11.3, 12.9, 15.2], [0.1, 0.2, 0.1, 0.3, 0.2, 0.1, 0.4, 0.2]);
    const { results } = fitted([y], { weights });
    expect(results[0].quantity.value).toBeCloseTo(2.0224470833354515, 9);
    expect(results[1].quantity.value).toBeCloseTo(1.08652495141644, 9);
    expect(results[0].quantity.standardUncertainty).toBeCloseTo(ofSlope, 9);
    expect(results[1].quantity.standardUncertainty).toBeCloseTo(ofIntercept, 9);
    expect(results[0].quantity.degreesOfFreedom).toBe(weights === 'own' ? Infinity : 6);
    const chi = results.find(({ key }) => key === 'chiSquared');
    // (0.0242167 / 0.0226312)² = 1.1450
    if (weights === 'own') expect(chi?.quantity.value).toBeCloseTo(1.145, 3);
    else expect(chi).toBeUndefined();
  },
);

test.each([
  [undefined, 0.65, 0.715],
  [0.95, 0.935, 0.965],
])(
  'the band of the curve holds the true line, and that of readings the next one, as often as it says (%p)',
  (share, low, high) => {
    const normal = normalRandom(21);
    const repetitions = 3000;
    let [curve, reading] = [0, 0];
    for (let i = 0; i < repetitions; i++) {
      const { fitted: found } = fitted([
        points(Array.from({ length: 10 }, (_, k) => 2 * k - 3 + 0.5 * normal())),
      ]);
      const at = 7.3;
      const truth = 2 * at - 3;
      if (Math.abs(found.valueAt(at) - truth) <= found.curveBandAt(at, share)) curve++;
      if (Math.abs(found.valueAt(at) - truth - 0.5 * normal()) <= found.bandAt(at, share)) reading++;
    }
    for (const held of [curve, reading]) {
      expect(held / repetitions).toBeGreaterThan(low);
      expect(held / repetitions).toBeLessThan(high);
    }
  },
);

test('the unit of what is fitted is that of the bands', () => {
  expect(fitted([points([1, 3, 5.1, 7])]).fitted.unit).toEqual(parseUnit('m'));
});
