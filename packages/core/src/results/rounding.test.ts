import { resultText } from './rounding';

// Rule: JCGM 100:2008, 7.2.6 — two significant figures of the standard uncertainty, the value to the same place. The first
// case is the form of 7.2.2 with the numbers of H.1.
test.each([
  [50000838, 93.2, '(5.0000838 ± 0.0000093) × 10⁷'],
  [1.18623, 0.00412, '1.1862 ± 0.0041'],
  [-0.1712, 0.0029, '−0.1712 ± 0.0029'],
  [0.0996, 0.00995, '0.100 ± 0.010'],
  [9.81, 0.25, '9.81 ± 0.25'],
  [1234.5, 23, '1235 ± 23'],
  [1234.5, 230, '1230 ± 230'],
  [99999, 10, '99\u202f999 ± 10'],
  [99999.7, 12, '100\u202f000 ± 12'],
  [99999, 100, '100\u202f000 ± 100'],
  [210, 150, '210 ± 150'],
  [999999.7, 1.2, '999\u202f999.7 ± 1.2'],
  [0.0000123, 0.0000012, '(1.23 ± 0.12) × 10⁻⁵'],
  [-0.0000001, 0.01, '0.000 ± 0.010'],
  [0.9278, 1e-17, '0.9278'],
  [3e-17, 2e-18, '(3.00 ± 0.20) × 10⁻¹⁷'],
  [0, 2e-17, '(0.0 ± 2.0) × 10⁻¹⁷'],
])('%p with u = %p is written %s', (value, u, text) => expect(resultText(value, u)).toBe(text));

test('without an uncertainty four digits are shown, and none are made up for a missing number', () => {
  expect(resultText(0.312345, null)).toBe('0.3123');
  expect(resultText(0, null)).toBe('0');
  expect(resultText(NaN, null)).toBe('—');
});

test('a small number with many zeros is written with a power of ten, one with few is not', () => {
  expect(resultText(0.00017993, 0.00000022)).toBe('(1.7993 ± 0.0022) × 10⁻⁴');
  expect(resultText(0.0036876, 0.0000046)).toBe('(3.6876 ± 0.0046) × 10⁻³');
  expect(resultText(0.00123, 0.00004)).toBe('0.001230 ± 0.000040');
  expect(resultText(0.0274641, 0.0000059)).toBe('0.0274641 ± 0.0000059');
});
