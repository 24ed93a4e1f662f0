import { Refusal } from '../refusal';
import { type EntryOfKind } from './entries';
import { evaluate } from './evaluate';
import { constant, sliderEnds } from './kinds/constant';

const g = { value: 9.81, uncertainty: 0.02, ends: '' };

test('a constant slides within twice its uncertainty, or between the ends that were typed', () => {
  const { low, high } = sliderEnds(g) ?? { low: NaN, high: NaN };
  expect([low - 9.77, high - 9.85].every((off) => Math.abs(off) < 1e-12)).toBe(true);
  expect(sliderEnds({ ...g, uncertainty: 0 })).toBeNull();
  for (const ends of ['9 to 10.5', '9 … 10,5', '9 – 10.5', ' 9 to 10.5 '])
    expect(sliderEnds({ ...g, ends })).toEqual({ low: 9, high: 10.5 });
  expect(sliderEnds({ ...g, ends: '−2 to −1' })).toEqual({ low: -2, high: -1 });
  for (const ends of ['9', '10 to 9', 'wide', '9 to', '1 to 2 m'])
    expect(() => sliderEnds({ ...g, ends })).toThrow(Refusal);
});

test('what the slider changed counts, and is said', () => {
  const entry = {
    kind: 'constant' as const,
    id: 'g',
    name: 'g',
    unit: 'm/s2',
    source: '',
    ...g,
    shift: 0.03,
    repeats: '',
  };
  const outcome = evaluate({ entries: [entry] }, { id: 'r', channels: [] }).outcomes.get('g');
  expect(outcome).toMatchObject({ results: [{ quantity: { value: 9.84, standardUncertainty: 0.02 } }] });
  expect(outcome).toHaveProperty('notes.0', expect.stringContaining('Changed by the slider'));
  expect(constant.sentence(entry, String)).toBe('');
});

test('a constant from repeats is their mean, uncertain by s/√n with n − 1 degrees of freedom', () => {
  const entry: EntryOfKind<'constant'> = {
    kind: 'constant',
    id: 'T',
    name: 'T',
    value: 0,
    uncertainty: 0,
    unit: 's',
    source: 'stopwatch',
    ends: '',
    shift: 0,
    // 1.2, 1.3, 1.4, 1.5: mean 1.35, s = 0.1291, over √4 0.06455.
    repeats: '1.2 1,3; 1.4\n1.5',
  };
  const outcome = evaluate({ entries: [entry] }, { id: 'r', channels: [] }).outcomes.get('T');
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  const [{ quantity }] = outcome.results;
  expect(quantity.value).toBeCloseTo(1.35, 12);
  expect(quantity.standardUncertainty).toBeCloseTo(0.0645497, 6);
  expect(quantity.degreesOfFreedom).toBe(3);
  const wrong = { ...entry, repeats: '1.2 long' };
  expect(evaluate({ entries: [wrong] }, { id: 'r', channels: [] }).outcomes.get('T')).toMatchObject({
    sentence: expect.stringContaining('“long” is no number') as unknown,
  });
});
