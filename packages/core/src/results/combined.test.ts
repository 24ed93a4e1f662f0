import { parseUnit } from '../units/unit';
import { combined } from './combined';
import { type Quantity, budgetOf, covarianceOf, exactly } from './quantity';

// Source: JCGM 100:2008 (GUM), annex H.2, tables H.2 to H.4: five simultaneous readings of voltage, current and phase; the
// covariances of their means decide the uncertainty of the impedance. Readings and results written down from memory.
const voltage = [5.007, 4.994, 5.005, 4.99, 4.999];
const current = [19.663, 19.639, 19.64, 19.685, 19.678];
const phase = [1.0456, 1.0438, 1.0468, 1.0428, 1.0433];

/** The mean of readings that were taken together with others: each set of readings is a root's own reading. */
function meanOf(readings: readonly number[], unit: string): Quantity {
  const n = readings.length;
  const value = readings.reduce((sum, reading) => sum + reading, 0) / n;
  const weights = Float64Array.from(readings, (reading) => (reading - value) / Math.sqrt(n * (n - 1)));
  return {
    value,
    unit: parseUnit(unit),
    standardUncertainty: Math.hypot(...weights),
    degreesOfFreedom: n - 1,
    influences: () => [{ root: 'sets', label: 'sets of readings', effect: { first: 0, weights } }],
  };
}

const [v, i, phi] = [meanOf(voltage, 'V'), meanOf(current, 'mA'), meanOf(phase, 'rad')];
const correlation = (a: Quantity, b: Quantity) =>
  covarianceOf(a, b) / ((a.standardUncertainty ?? NaN) * (b.standardUncertainty ?? NaN));

test('means, their uncertainties and correlations are those of table H.2', () => {
  expect(v.value).toBeCloseTo(4.999, 4);
  expect(v.standardUncertainty).toBeCloseTo(0.0032, 4);
  expect(i.value).toBeCloseTo(19.661, 4);
  expect(i.standardUncertainty).toBeCloseTo(0.0095, 4);
  expect(phi.standardUncertainty).toBeCloseTo(0.00075, 5);
  expect(correlation(v, i)).toBeCloseTo(-0.36, 2);
  expect(correlation(v, phi)).toBeCloseTo(0.86, 2);
  expect(correlation(i, phi)).toBeCloseTo(-0.65, 2);
});

test('the impedance V/I is 254.260 Ω with 0.236 Ω, its resistance 127.732 Ω with 0.071 Ω (table H.4)', () => {
  const amperes = i.value / 1000;
  const z = combined(v.value / amperes, parseUnit('Ohm'), [
    { quantity: v, derivative: 1 / amperes },
    { quantity: i, derivative: -v.value / (amperes * amperes) / 1000 },
  ]);
  expect(z.value).toBeCloseTo(254.26, 2);
  expect(z.standardUncertainty).toBeCloseTo(0.236, 3);
  const resistance = combined(z.value * Math.cos(phi.value), parseUnit('Ohm'), [
    { quantity: z, derivative: Math.cos(phi.value) },
    { quantity: phi, derivative: -z.value * Math.sin(phi.value) },
  ]);
  expect(resistance.value).toBeCloseTo(127.732, 3);
  expect(resistance.standardUncertainty).toBeCloseTo(0.071, 3);
  const reactance = combined(z.value * Math.sin(phi.value), parseUnit('Ohm'), [
    { quantity: z, derivative: Math.sin(phi.value) },
    { quantity: phi, derivative: z.value * Math.cos(phi.value) },
  ]);
  expect(reactance.value).toBeCloseTo(219.847, 3);
  // 0.29558 from unrounded readings; the table, from rounded ones, says 0.295.
  expect(Math.abs((reactance.standardUncertainty ?? NaN) - 0.295)).toBeLessThan(0.001);
  expect(correlation(resistance, reactance)).toBeCloseTo(-0.588, 2);
  // One root for all: its degrees of freedom are theirs.
  expect(z.degreesOfFreedom).toBe(4);
});

const independent = (root: string, value: number, u: number, degreesOfFreedom: number): Quantity => ({
  value,
  unit: [],
  standardUncertainty: u,
  degreesOfFreedom,
  influences: () => [{ root, label: root, effect: { first: 0, weights: Float64Array.of(u) } }],
});

test('independent parts add in squares, and their degrees of freedom by Welch and Satterthwaite', () => {
  const [a, b] = [independent('a', 3, 0.3, 4), independent('b', 5, 0.4, 9)];
  const sum = combined(
    8,
    [],
    [
      { quantity: a, derivative: 1 },
      { quantity: b, derivative: 1 },
    ],
  );
  expect(sum.standardUncertainty).toBeCloseTo(0.5, 12);
  expect(sum.degreesOfFreedom).toBeCloseTo(0.5 ** 4 / (0.3 ** 4 / 4 + 0.4 ** 4 / 9), 9);
  expect(budgetOf(sum).map(({ label, share }) => [label, Number(share.toFixed(9))])).toEqual([
    ['b', 0.64],
    ['a', 0.36],
  ]);
});

test('a value less itself is exactly nothing, and exact parts bring nothing', () => {
  const a = independent('a', 3, 0.3, 4);
  const nothing = combined(
    0,
    [],
    [
      { quantity: a, derivative: 1 },
      { quantity: a, derivative: -1 },
    ],
  );
  expect(nothing.standardUncertainty).toBe(0);
  const double = combined(
    6,
    [],
    [
      { quantity: a, derivative: 2 },
      { quantity: exactly(2, []), derivative: 3 },
    ],
  );
  expect(double.standardUncertainty).toBeCloseTo(0.6, 12);
  expect(double.degreesOfFreedom).toBeCloseTo(4, 9);
  const exact = combined(6, [], [{ quantity: exactly(2, []), derivative: 3 }]);
  expect(exact.standardUncertainty).toBeNull();
  expect(exact.influences()).toEqual([]);
});
