import { calmed } from './scaling';

test('while readings come the axis stands still, and moves now and then', () => {
  let shown = { from: 0, to: 1 };
  let moves = 0;
  // A swing that grows by a hundredfold over 5000 frames.
  for (let frame = 0; frame < 5000; frame++) {
    const reach = 0.5 * 100 ** (frame / 5000);
    const next = calmed(shown, { from: -reach, to: reach });
    expect(next.from).toBeLessThanOrEqual(-reach);
    expect(next.to).toBeGreaterThanOrEqual(reach);
    if (next.from !== shown.from || next.to !== shown.to) moves++;
    shown = next;
  }
  expect(moves).toBeLessThan(25);
});

test('a trace that has become small gets an axis of its own size', () => {
  expect(calmed({ from: -10, to: 10 }, { from: -1, to: 1 })).toEqual({ from: -1, to: 1 });
  expect(calmed({ from: -10, to: 10 }, { from: -4, to: 4 })).toEqual({ from: -10, to: 10 });
  expect(calmed(null, { from: 2, to: 3 })).toEqual({ from: 2, to: 3 });
});
