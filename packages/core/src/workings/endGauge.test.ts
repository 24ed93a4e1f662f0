import { budgetOf } from '../results/quantity';
import { constantEntry } from '../testing/sheet';
import { drawnIn } from './asked';
import { type Entry } from './entries';
import { Evaluator } from './evaluate';

// Source: JCGM 100:2008, annex H.1, calibration of an end gauge, table H.1 and H.1.7; its numbers are given here from memory.
// l = l_s + d − l_s (δα θ + α_s δθ).

const inputs = [
  constantEntry('l_s', 50.000623, 25e-6, 'mm'),
  constantEntry('d', 215, 9.7, 'nm'),
  constantEntry('δα', 0, 0.58e-6, 'K-1'),
  constantEntry('θ', -0.1, 0.41, 'K'),
  constantEntry('α_s', 11.5e-6, 1.2e-6, 'K-1'),
  constantEntry('δθ', 0, 0.029, 'K'),
];
const length: Entry = {
  kind: 'calculation',
  id: 'l',
  name: 'l',
  formula: { text: 'l_s + d - l_s (δα θ + α_s δθ)', names: {} },
  unit: 'mm',
};
const workings = { entries: [...inputs, length] };
const evaluator = new Evaluator({ id: 'r', channels: [] });

test('the end gauge of GUM H.1: value, combined uncertainty, and the budget of it', () => {
  const outcome = evaluator.evaluate(workings).outcomes.get('l');
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  const [{ quantity }] = outcome.results;
  expect(quantity.value).toBeCloseTo(50.000838, 6);
  expect((quantity.standardUncertainty ?? 0) * 1e6).toBeCloseTo(31.7, 0);
  const inNanometres = new Map(
    budgetOf(quantity).map(({ label, standardUncertainty }) => [label, standardUncertainty * 1e6]),
  );
  expect(inNanometres.get('l_s')).toBeCloseTo(25, 1);
  expect(inNanometres.get('δθ')).toBeCloseTo(16.6, 0);
  expect(inNanometres.get('d')).toBeCloseTo(9.7, 1);
  expect(inNanometres.get('δα')).toBeCloseTo(2.9, 1);
  expect(inNanometres.get('α_s') ?? 0).toBeLessThan(0.1);
  expect(inNanometres.get('θ') ?? 0).toBeLessThan(0.1);
});

test('draws find what first order misses there: 34 nm with the terms of second order (H.1.7)', () => {
  const { standardDeviation, mean } = drawnIn(evaluator, workings, 'l', 200_000);
  expect(standardDeviation * 1e6).toBeGreaterThan(33.5);
  expect(standardDeviation * 1e6).toBeLessThan(34.5);
  expect(mean).toBeCloseTo(50.000838, 6);
});
