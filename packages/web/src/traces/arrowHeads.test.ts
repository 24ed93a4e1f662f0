import { headsAlong } from './arrowHeads';

const circle = (sign: number) =>
  Array.from({ length: 500 }, (_, i) => ({
    x: 200 + 100 * Math.cos((sign * 2 * Math.PI * i) / 500),
    y: 200 + 100 * Math.sin((sign * 2 * Math.PI * i) / 500),
  }));

test.each([1, -1])('heads stand along a circle and point the way it was gone, %p', (sign) => {
  const heads = headsAlong(circle(sign), 110);
  // The way is 628 pixels long.
  expect(heads.length).toBeGreaterThanOrEqual(5);
  expect(heads.length).toBeLessThanOrEqual(7);
  for (const { at, angle } of heads) {
    const place = Math.atan2(at.y - 200, at.x - 200);
    const tangent = place + (sign * Math.PI) / 2;
    expect(Math.cos(angle - tangent)).toBeGreaterThan(0.98);
  }
});

test('what trembles about a place has no direction, and a broken way none across its gap', () => {
  const still = Array.from({ length: 1000 }, (_, i) => ({ x: 5 * Math.sin(i * 7), y: 5 * Math.cos(i * 3) }));
  expect(headsAlong(still, 50)).toEqual([]);
  const gap = [
    { x: 0, y: 0 },
    { x: 0, y: NaN },
    { x: 500, y: 0 },
  ];
  expect(headsAlong(gap, 50)).toEqual([]);
});

test('a way that goes round and round is not covered with heads', () => {
  const rounds = Array.from({ length: 20 }, () => circle(1)).flat();
  const heads = headsAlong(rounds, 110);
  expect(heads.length).toBeGreaterThanOrEqual(10);
  expect(heads.length).toBeLessThanOrEqual(12);
});
