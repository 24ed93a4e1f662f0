import { positionSeries } from '../testing/series';
import { channelOf } from '../testing/sheet';
import { evaluate } from '../workings/evaluate';
import { areaBetween } from './area';
import { runningIntegral } from './integral';

test('the running integral of a straight line is its parabola, zero at the first reading', () => {
  const speed = positionSeries(101, 0.02, (t) => 3 * t);
  const distance = runningIntegral(speed, 's');
  expect(distance.values[0]).toBe(0);
  expect(distance.values[100]).toBeCloseTo(1.5 * 2 * 2, 12);
});

test('the area under one arch of a sine is 2 (∫₀^π sin), also between readings', () => {
  const arch = positionSeries(4000, 0.001, Math.sin);
  expect(areaBetween(arch, 0, Math.PI).value).toBeCloseTo(2, 6);
  expect(areaBetween(arch, 0.50037, 1.20021).value).toBeCloseTo(Math.cos(0.50037) - Math.cos(1.20021), 6);
});

test('the weights of an area give the area back', () => {
  const series = positionSeries(50, 0.1, (t) => 2 + Math.cos(t));
  const {
    value,
    byValues: { first, weights },
  } = areaBetween(series, 0.33, 2.71);
  expect(weights.reduce((sum, weight, i) => sum + weight * series.values[first + i], 0)).toBeCloseTo(
    value,
    12,
  );
});

test('a lone lost echo is bridged by a straight line, and counted', () => {
  const series = positionSeries(50, 0.1, (t) => 2 * t);
  series.values[20] = NaN;
  const { value, bridged, byValues } = areaBetween(series, 1, 4);
  expect(value).toBeCloseTo(4 ** 2 - 1, 10);
  expect(bridged).toBe(1);
  expect(byValues.weights[20 - byValues.first]).toBe(0);
});

test('a gap is never integrated across in silence', () => {
  const series = positionSeries(50, 0.1, (t) => t);
  series.values.fill(NaN, 20, 30);
  expect(() => areaBetween(series, 1, 4)).toThrow('Readings are missing between 1.9 and 3');
});

test('a running integral goes on over ten missing readings by a straight line, and refuses eleven', () => {
  const series = positionSeries(50, 0.1, (t) => t);
  series.values.fill(NaN, 20, 30);
  const sum = runningIntegral(series, 's');
  expect(sum.values[19]).toBeCloseTo(1.9 ** 2 / 2, 12);
  expect(sum.values[31]).toBeCloseTo(3.1 ** 2 / 2, 12);
  const longer = positionSeries(50, 0.1, (t) => t);
  longer.values.fill(NaN, 20, 31);
  expect(() => runningIntegral(longer, 's')).toThrow(
    'Readings of x are missing between 1.9 s and 3.1 s, more than the 10 in a row that are bridged by a straight line',
  );
});

test('the entry says over how many missing readings it went on', () => {
  const values = Float64Array.from({ length: 50 }, (_, i) => i);
  values.fill(NaN, 20, 25);
  values[40] = NaN;
  const outcome = evaluate(
    { entries: [{ kind: 'integral', id: 'i', name: 's', of: 'channel:v' }] },
    { id: 'r', channels: [channelOf('v', 'm/s', values, 0.1)] },
  ).outcomes.get('i');
  expect(outcome).toMatchObject({
    kind: 'series',
    notes: ['6 missing readings were bridged by a straight line, at most 5 in a row (at 2 s); up to 10 are.'],
  });
});

test('the noise path of an integral is its own transpose: wᵀ(F y) = (Fᵀ w)ᵀ y', () => {
  const series = positionSeries(40, 0.1, (t) => Math.sin(3 * t) + t);
  series.values[11] = NaN;
  const integral = runningIntegral(series, 's');
  const weights = Float64Array.from({ length: 40 }, (_, i) => (i === 11 ? 0 : Math.cos(i)));
  const left = weights.reduce((sum, w, i) => (w === 0 ? sum : sum + w * integral.values[i]), 0);
  const spread = integral.noise?.spread({ first: 0, weights }) ?? { first: 0, weights: new Float64Array(0) };
  const right = spread.weights.reduce((sum, w, i) => (w === 0 ? sum : sum + w * series.values[i]), 0);
  expect(left).toBeCloseTo(right, 12);
});
