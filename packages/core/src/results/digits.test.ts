import { significantDigits } from './digits';

// Rules of counting significant figures: NIST SP 811 (2008), B.7.1, and usual school practice for zeros at the end.
test.each([
  ['0.0120 m', 3],
  ['943 ms', 3],
  ['9,81', 3],
  ['−0.5', 1],
  ['1.20e3 Pa', 3],
  ['6.02 × 10^23', 3],
  ['1 200', 4],
  ['100', 3],
  ['0.00', 1],
  ['.50', 2],
])('%s has %i', (text, count) => expect(significantDigits(text)).toBe(count));

test('words are no number', () =>
  expect(() => significantDigits('about ten')).toThrow('“about ten” is no number.'));
