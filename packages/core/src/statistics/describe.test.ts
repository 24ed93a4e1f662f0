import { describe as describeValues } from './describe';

test('a large offset costs no digits: NumAcc4 of NIST StRD, mean 10000000.2, sd 0.1', () => {
  // Source: NIST StRD, univariate summary statistics, NumAcc4: 10000000.2, then 500 pairs of 10000000.1 and 10000000.3.
  const values = Float64Array.from({ length: 1001 }, (_, i) =>
    i === 0 ? 10000000.2 : i % 2 === 1 ? 10000000.1 : 10000000.3,
  );
  const { mean, standardDeviation } = describeValues(values);
  expect(mean).toBeCloseTo(10000000.2, 7);
  expect(standardDeviation).toBeCloseTo(0.1, 8);
});

test('missing readings are left out, one reading has no spread, none is refused', () => {
  const some = describeValues(Float64Array.from([NaN, 2, 4, NaN, 6]));
  expect(some).toMatchObject({ count: 3, mean: 4, standardDeviation: 2, minimum: 2, maximum: 6 });
  expect(describeValues(Float64Array.of(5)).standardDeviation).toBeNaN();
  expect(() => describeValues(Float64Array.of(NaN, NaN))).toThrow('no reading in this region');
});
