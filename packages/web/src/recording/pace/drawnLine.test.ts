import { normalRandom, targetAt } from '@heuristor/core';
import { lineOfReadings, typedPoints, writtenPoints } from './drawnLine';

// Lines that are typed point by point, and lines that recorded runs make.

describe('typed points', () => {
  test('a time and a value a line, with a comma, a semicolon or a minus of print; what is written is read again', () => {
    expect(typedPoints('0 1,2\n\n 2.5;−0.3 \n10\t4e-1', 10)).toEqual([
      { t: 0, value: 1.2 },
      { t: 2.5, value: -0.3 },
      { t: 10, value: 0.4 },
    ]);
    const points = [
      { t: 0, value: 1.25 },
      { t: 3.07, value: -2 },
    ];
    expect(typedPoints(writtenPoints(points), 5)).toEqual(points);
  });

  test.each([
    ['0 1\n2', 'Line 2 is not a time and a value'],
    ['0 1\n2 3 4', 'Line 2 is not a time and a value'],
    ['0 1\nx 3', 'Line 2 is not a time and a value'],
    ['0 1\n2 Infinity', 'Line 2 is not a time and a value'],
    ['-1 1\n2 2', 'Line 1: the time -1 is not between 0 and 10 s'],
    ['0 1\n11 2', 'Line 2: the time 11 is not between'],
    ['0 1\n3 2\n3 4', 'Line 3: the time 3 is not after the one before it'],
    ['0 1', 'at least two points'],
    ['', 'at least two points'],
  ])('%j is refused with its line', (text, words) => {
    expect(typedPoints(text, 10)).toContain(words);
  });
});

describe('a run as a line', () => {
  /** Stands, walks off with 0.5 m/s, stands. */
  const walk = (t: number) => 0.5 + 0.5 * Math.min(Math.max(t - 2, 0), 4);
  const ends = { low: 0.15, high: 6 };

  test.each([400, 1_000_000])('of %p readings follows what was walked, with its corners', (count) => {
    const normal = normalRandom(7);
    const timeOf = (i: number) => (8 * i) / count;
    const values = Float64Array.from({ length: count }, (_, i) => walk(timeOf(i)) + 0.0003 * normal());
    const line = lineOfReadings(values, timeOf, ends);
    expect(line.length).toBeGreaterThan(3);
    expect(line.length).toBeLessThan(20);
    for (let t = 0; t < 8; t += 0.1) expect(Math.abs(targetAt(line, t) - walk(t))).toBeLessThan(0.03);
  });

  test('what stands at a limit, is missing, or came before time zero is no part of it', () => {
    const values = Float64Array.of(3, 0.5, 6, NaN, 0.5, 0.15, 0.9);
    const line = lineOfReadings(values, (i) => i - 1, ends);
    expect(line).toEqual([
      { t: 0, value: 0.5 },
      { t: 3, value: 0.5 },
      { t: 5, value: 0.9 },
    ]);
    expect(lineOfReadings(Float64Array.of(NaN, 7), (i) => i, ends)).toEqual([]);
  });

  test('noise that nobody follows leaves a line of sixty points at most', () => {
    const normal = normalRandom(9);
    const values = Float64Array.from({ length: 5000 }, () => 1 + 0.1 * normal());
    expect(lineOfReadings(values, (i) => i / 50, { low: null, high: null }).length).toBeLessThan(61);
  });
});
