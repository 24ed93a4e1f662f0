import { normalRandom } from '../random';
import { repetitions } from '../testing/effort';
import { oneWay, oneWayWords } from './oneWay';

const groupsOf = (...all: readonly number[][]) => all.map((values) => Float64Array.from(values));

// Source: dried weights of plants under a control and two treatments, A. J. Dobson, An Introduction to Statistical Modelling (1983),
// table 2.1, with F and its chance as general-purpose statistics software gives them; values from memory.
test('a published comparison of three treatments', () => {
  const found = oneWay(
    groupsOf(
      [4.17, 5.58, 5.18, 6.11, 4.5, 4.61, 5.17, 4.53, 5.33, 5.14],
      [4.81, 4.17, 4.41, 3.59, 5.87, 3.83, 6.03, 4.89, 4.32, 4.69],
      [6.31, 5.12, 5.54, 5.5, 5.37, 5.29, 4.92, 6.15, 5.8, 5.26],
    ),
  );
  expect(found).toMatchObject({ groups: 3, values: 30, between: 2, within: 27 });
  expect(found?.ratio).toBeCloseTo(4.846, 3);
  expect(found?.chance).toBeCloseTo(0.01591, 5);
  expect(found === null ? '' : oneWayWords(found)).toBe(
    'The means of the 3 groups differ by more than the scatter within them explains: F = 4.85 with 2 and 27 degrees of freedom; chance alone makes as much in one case of 63.',
  );
});

// Source: NIST Statistical Reference Datasets (StRD), analysis of variance, SmLs01, SmLs04 and SmLs07: nine groups of 21 values that
// are made by a rule, 0.1 about means 0.1 apart, on an offset; the certified F is 21, from memory.
test.each([1, 1e6 + 1, 1e12 + 1])('nine groups of NIST on an offset of %p', (offset) => {
  const means = [0, -0.1, 0.1, -0.1, 0.1, -0.1, 0.1, -0.1, 0.1];
  const found = oneWay(
    groupsOf(
      ...means.map((mean) =>
        Array.from({ length: 21 }, (_, i) => offset + 0.4 + mean + (i === 0 ? 0 : i % 2 === 0 ? 0.1 : -0.1)),
      ),
    ),
  );
  expect(found).toMatchObject({ between: 8, within: 180 });
  // The values themselves are rounded: by 1e-4 of their steps on the largest offset.
  expect(Math.abs((found?.ratio ?? 0) / 21 - 1)).toBeLessThan(offset > 1e9 ? 3e-3 : 1e-8);
});

test('groups of one distribution are said to differ in five of a hundred cases', () => {
  const normal = normalRandom(77);
  const rounds = repetitions(1000, 4000);
  let apart = 0;
  for (let i = 0; i < rounds; i++) {
    const groups = [3, 5, 4, 8].map((count) =>
      Float64Array.from({ length: count }, () => 9.81 + 0.2 * normal()),
    );
    if ((oneWay(groups)?.chance ?? 1) < 0.05) apart++;
  }
  expect(apart / rounds).toBeGreaterThan(0.03);
  expect(apart / rounds).toBeLessThan(0.07);
});

test('few values: groups of one each, values that are all alike, and empty groups', () => {
  expect(oneWay(groupsOf([1], [2], [3]))).toBeNull();
  expect(oneWay(groupsOf([1, 1], [1, 1]))).toBeNull();
  expect(oneWay(groupsOf([1, 2, 3]))).toBeNull();
  expect(oneWay(groupsOf([1, 1], [2, 2]))).toMatchObject({ ratio: Infinity, chance: 0 });
  expect(oneWay(groupsOf([], [1, 2], [3]))).toMatchObject({ groups: 2, between: 1, within: 1 });
});
