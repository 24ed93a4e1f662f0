import reference from '../../reference/scipy.json';
import { madScale } from '../statistics/hampel';
import { medianOf } from '../statistics/describe';
import { regular } from '../series/sampling';
import { seriesOf } from '../testing/series';
import { areaBetween } from './area';
import { localPolynomialFilter } from './filter';
import { runningIntegral } from './integral';
import { medianFilter } from './medianFilter';
import { turnsOf } from './turns';

// Source: scipy in the version that the reference names, made by packages/core/reference/scipy.py.

const x = Float64Array.from(reference.x);
const series = seriesOf(regular(0, reference.interval, x.length), x);

const near = (found: ArrayLike<number>, truth: readonly number[], digits: number) => {
  expect(found.length).toBe(truth.length);
  const reach = Math.max(...truth.map(Math.abs)) * 10 ** -digits;
  truth.forEach((value, i) => expect(Math.abs(found[i] - value)).toBeLessThan(reach));
};

test.each(reference.filters)(
  'the filter of $window readings, degree $degree, order $order is savgol_filter, its ends too',
  ({ window, degree, order, values }) => {
    near(localPolynomialFilter(series, 'y', { windowPoints: window, degree, order }).values, values, 9);
  },
);

test('the running median is medfilt, away from the ends, which that fills with zeros', () => {
  const { window, values } = reference.median;
  const half = (window - 1) / 2;
  const found = medianFilter(series, 'y', window).values;
  near(found.slice(half, -half), values.slice(half, -half), 12);
});

test('areas are those of trapezoid and cumulative_trapezoid', () => {
  near(runningIntegral(series, 'y').values, reference.running, 11);
  expect(areaBetween(series, -1, 10).value).toBeCloseTo(reference.integral, 11);
});

test('median and scaled median absolute deviation are those of numpy and scipy.stats', () => {
  expect(medianOf(x)).toBeCloseTo(reference.medianOfAll, 12);
  const deviations = x.map((value) => Math.abs(value - reference.medianOfAll));
  // The scale is rounded to 1.4826 where it is printed.
  expect(madScale * medianOf(deviations)).toBeCloseTo(reference.deviation, 5);
});

test('peaks stand where find_peaks finds them, within a reading', () => {
  const peaks = turnsOf(series).filter(({ kind }) => kind === 'peak');
  expect(peaks.map(({ index }) => index)).toEqual(reference.peaks);
  peaks.forEach(({ time }, i) =>
    expect(Math.abs(time.value / reference.interval - reference.peaks[i])).toBeLessThan(1.5),
  );
});
