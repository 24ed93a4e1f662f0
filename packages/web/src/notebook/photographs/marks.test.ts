import { type Mark, lengthBy, marksIn } from './marks';

const size = { width: 2000, height: 1000 };
const scale = (metres: number | null): Extract<Mark, { kind: 'scale' }> => ({
  kind: 'scale',
  from: [0.1, 0.5],
  to: [0.6, 0.5],
  metres,
});

test('a length is to the scale as their lines are on the photograph', () => {
  // 1000 pixels are 0.3 m; a line of 300 by 400 pixels is 500 long (3, 4, 5), so 0.15 m.
  const found = lengthBy(scale(0.3), { from: [0.2, 0.1], to: [0.35, 0.5] }, size);
  expect(found?.value).toBeCloseTo(0.15, 12);
});

test('its ± holds when all four ends are placed anew by a hand that errs by 0.2 % of the width', () => {
  let seed = 7;
  // Sum of twelve even ones less six: normal enough, standard deviation 1.
  const normal = () => {
    let sum = -6;
    for (let i = 0; i < 12; i++) sum += (seed = (seed * 16807) % 2147483647) / 2147483647;
    return sum;
  };
  // Along a line an error of 4 pixels counts whole; across it hardly.
  const moved = ([x, y]: readonly [number, number]): [number, number] => [
    x + (4 * normal()) / 2000,
    y + (4 * normal()) / 1000,
  ];
  let within = 0;
  for (let i = 0; i < 4000; i++) {
    const laid = { ...scale(0.3), from: moved([0.1, 0.5]), to: moved([0.6, 0.5]) };
    const found = lengthBy(laid, { from: moved([0.2, 0.1]), to: moved([0.35, 0.5]) }, size);
    if (found !== null && Math.abs(found.value - 0.15) < found.u) within++;
  }
  expect(within / 4000).toBeGreaterThan(0.65);
  expect(within / 4000).toBeLessThan(0.71);
});

test('without a scale, or with one of no length, there is no number', () => {
  const line = { from: [0, 0] as [number, number], to: [1, 0] as [number, number] };
  expect(lengthBy(undefined, line, size)).toBeNull();
  expect(lengthBy(scale(null), line, size)).toBeNull();
  expect(lengthBy({ ...scale(1), to: [0.1, 0.5] }, line, size)).toBeNull();
});

test('what anybody may have written is read as marks, or left out', () => {
  const arrow = { kind: 'arrow', from: [0, 0], to: [1, 1] };
  expect(
    marksIn([
      ['caption', 'words'],
      ['mark b', arrow],
      ['mark a', { kind: 'words', at: [0.5, 0.5], words: 'hook' }],
      ['mark c', null],
      ['mark d', { kind: 'arrow', from: [0, 2], to: [1, 1] }],
      ['mark e', { kind: 'scale', from: [0, 0], to: [1, 1], metres: -1 }],
      ['mark f', '<script>'],
    ]).map(({ id }) => id),
  ).toEqual(['a', 'b']);
});
