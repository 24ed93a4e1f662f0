import { type DragEvent, type Held, dragStep } from './drag';

/** What comes of events, of something that begins as "a". */
function outcomes(shortest: number, ...events: DragEvent<string>[]) {
  let held: Held<string> = null;
  return events.map((event) => {
    const [next, outcome] = dragStep(held, event, shortest);
    held = next;
    return outcome;
  });
}
const down = { kind: 'down', at: { x: 10, y: 20 }, began: 'a' } as const;
const move = (x: number, y: number) => ({ kind: 'move', at: { x, y } }) as const;
const up = (x: number, y: number) => ({ kind: 'up', at: { x, y } }) as const;

test('moves are counted from where the hand took hold, and from the move before', () => {
  expect(outcomes(4, down, move(13, 24), move(20, 24), up(20, 24))).toEqual([
    null,
    { kind: 'moved', began: 'a', by: { x: 3, y: 4 }, since: { x: 3, y: 4 } },
    { kind: 'moved', began: 'a', by: { x: 10, y: 4 }, since: { x: 7, y: 0 } },
    { kind: 'dropped' },
  ]);
});

test('a hand that trembles has pressed', () => {
  expect(outcomes(4, down, move(12, 22), up(12, 22)).at(-1)).toEqual({ kind: 'pressed' });
});

test('once it has moved it may come back to where it was', () => {
  expect(outcomes(4, down, move(20, 20), move(11, 20)).at(-1)).toMatchObject({ by: { x: 1, y: 0 } });
});

test('what was taken away is dropped, and was no press', () => {
  expect(outcomes(4, down, move(20, 20), { kind: 'lost' }).at(-1)).toEqual({ kind: 'dropped' });
  expect(outcomes(4, down, { kind: 'lost' }).at(-1)).toBeNull();
});

test('nothing comes of moves that hold nothing, nor of an end that follows an end', () => {
  expect(outcomes(0, move(1, 1), up(1, 1))).toEqual([null, null]);
  expect(outcomes(0, down, up(10, 20), { kind: 'lost' })).toEqual([null, { kind: 'pressed' }, null]);
});
