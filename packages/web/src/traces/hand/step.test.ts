import { parseUnit } from '@heuristor/core';
import { type Hand, type HandEffect, type HandEvent, restingHand } from './hand';
import { type Place } from './place';
import { type Scene } from './scene';
import { step } from './step';

const metre = parseUnit('m');
const second = parseUnit('s');

/** Two traces over ten seconds: x of 0 to 2 m from 0 to 200 pixels down, v below it. */
const scene = (others: Partial<Scene> = {}): Scene => ({
  sight: { from: 0, to: 10 },
  wantedSight: { from: 0, to: 10 },
  width: 1000,
  horizontal: 't',
  horizontalUnit: second,
  mode: 'usual',
  shift: 0,
  scales: {},
  traceAt: (y) =>
    y < 200
      ? {
          trace: { key: 'x', reference: 'channel:x', unit: metre, low: 0, high: 2 },
          plot: { top: 0, height: 200 },
        }
      : y < 400
        ? {
            trace: { key: 'v', reference: 'channel:v', unit: parseUnit('m/s'), low: -1, high: 1 },
            plot: { top: 200, height: 200 },
          }
        : null,
  ...others,
});

const at = (x: number, y = 100): Place => ({ x, y });
const down = (place: Place, keys: Partial<Extract<HandEvent, { kind: 'down' }>> = {}): HandEvent => ({
  kind: 'down',
  at: place,
  finger: null,
  isMiddleButton: false,
  isShift: false,
  isControl: false,
  ...keys,
});
const move = (place: Place, finger: number | null = null): HandEvent => ({ kind: 'move', at: place, finger });
const up = (place: Place, finger: number | null = null): HandEvent => ({ kind: 'up', at: place, finger });

/** What comes of events one after the other, without what only hides the readings under a pointer. */
function done(events: readonly HandEvent[], over: Scene = scene(), from: Hand = restingHand) {
  let hand = from;
  const effects: HandEffect[] = [];
  for (const event of events) {
    const [next, came] = step(hand, event, over);
    hand = next;
    effects.push(...came.filter((effect) => effect.do !== 'hover' || effect.at !== null));
  }
  return { hand, effects };
}
const of = <D extends HandEffect['do']>(effects: readonly HandEffect[], wanted: D) =>
  effects.filter((effect): effect is Extract<HandEffect, { do: D }> => effect.do === wanted);

describe('marking', () => {
  test('a drag to the left marks from the smaller time to the larger, with the trace that was pressed', () => {
    const { hand, effects } = done([down(at(600, 250)), move(at(400)), move(at(300)), up(at(300))]);
    expect(of(effects, 'mark')).toEqual([
      { do: 'mark', start: 4, end: 6, series: 'channel:v', isNew: true },
      { do: 'mark', start: 3, end: 6, series: 'channel:v', isNew: false },
    ]);
    expect(effects.at(-1)).toEqual({ do: 'settle' });
    expect(hand.doing).toEqual({ is: 'resting' });
  });

  test('less than five pixels mark nothing; the cursor is put there instead', () => {
    const { effects } = done([down(at(300)), move(at(304)), up(at(304))]);
    expect(effects).toEqual([
      { do: 'settle' },
      { do: 'select no region' },
      { do: 'put cursor', at: 3.04, isSecond: false },
    ]);
  });

  test('a region that has begun follows back to within five pixels', () => {
    const { effects } = done([down(at(300)), move(at(400)), move(at(302))]);
    expect(of(effects, 'mark').at(-1)).toMatchObject({ start: 3, end: 3.02, isNew: false });
  });

  test('between the traces a region belongs to none of them', () => {
    expect(of(done([down(at(300, 500)), move(at(400))]).effects, 'mark')[0].series).toBeNull();
  });

  test.each(['cancel', 'lost'] as const)('what is %s is let go of as it stands', (kind) => {
    const { hand, effects } = done([down(at(300)), move(at(400)), { kind }]);
    expect(effects.at(-1)).toEqual({ do: 'settle' });
    expect(hand).toEqual(restingHand);
  });
});

test('with Shift or the middle button what is seen goes along; without moving it puts the second line', () => {
  for (const key of [{ isShift: true }, { isMiddleButton: true }]) {
    const { effects } = done([down(at(300), key), move(at(500)), up(at(500))]);
    expect(of(effects, 'look')).toEqual([{ do: 'look', sight: { from: -2, to: 8 } }]);
    expect(of(effects, 'put cursor')).toEqual([]);
  }
  const { effects } = done([down(at(300), { isShift: true }), up(at(300))]);
  expect(of(effects, 'put cursor')).toEqual([{ do: 'put cursor', at: 3, isSecond: true }]);
});

describe('a box', () => {
  const control = { isControl: true };

  test('shows what lies in it, of the trace in which it was begun', () => {
    const { effects } = done([down(at(600, 150), control), move(at(300, 20)), up(at(200, 50))]);
    expect(of(effects, 'look at box')).toEqual([
      { do: 'look at box', sight: { from: 2, to: 6 }, axis: 'x/left', range: { from: 0.5, to: 1.5 } },
    ]);
  });

  test.each([
    ['too narrow', at(303, 50)],
    ['too low', at(600, 103)],
  ])('that is %s shows nothing else', (_, end) => {
    const { effects } = done([down(at(300), control), move(end), up(end)]);
    expect(effects).toEqual([{ do: 'settle' }]);
  });

  test('that leaves its plot ends there', () => {
    const { effects } = done([down(at(300, 150), control), up(at(400, 390))]);
    expect(of(effects, 'look at box')[0].range).toEqual({ from: 0, to: 0.5 });
  });
});

describe('moving a run in time', () => {
  test('the run goes along from where it was', () => {
    const over = scene({ mode: 'shift', shift: 1.5 });
    const { effects } = done([down(at(300)), move(at(304)), move(at(350)), move(at(301)), up(at(301))], over);
    expect(of(effects, 'shift run').map(({ by }) => by)).toEqual([2, 1.51]);
    expect(of(effects, 'mark')).toEqual([]);
    expect(of(effects, 'put cursor')).toEqual([]);
  });

  test('without a run nothing is moved', () => {
    const { effects } = done([down(at(300)), move(at(400))], scene({ mode: 'shift', shift: null }));
    expect(effects).toEqual([]);
  });
});

describe('drawing around readings', () => {
  const circle = scene({ mode: 'circle' });

  test('what lies within is set aside, in the units of the axes, beyond the plot too', () => {
    const path = [at(300, 100), at(400, 100), at(400, -100)];
    const { effects } = done([down(path[0]), move(path[1]), move(path[2]), up(path[2])], circle);
    expect(effects).toEqual([
      { do: 'leave mode' },
      {
        do: 'set aside',
        outline: {
          of: 'channel:x',
          along: 't',
          units: { x: second, y: metre },
          outline: [
            { x: 3, y: 1 },
            { x: 4, y: 1 },
            { x: 4, y: 3 },
          ],
        },
      },
    ]);
  });

  test.each([
    ['of two points', [at(300), at(400)]],
    ['beside the traces', [at(300, 500), at(400, 500), at(400, 550)]],
  ])('a line %s sets nothing aside', (_, path) => {
    const { effects } = done(
      [down(path[0]), ...path.slice(1).map((place) => move(place)), up(path[0])],
      circle,
    );
    expect(effects).toEqual([{ do: 'leave mode' }]);
  });

  test('Escape in the middle of the line leaves it: nothing is set aside when the hand lets go', () => {
    const { hand } = done([down(at(300)), move(at(400)), move(at(400, 50)), move(at(350, 50))], circle);
    expect(done([up(at(300))], scene({ mode: 'usual' }), hand)).toEqual({ hand: restingHand, effects: [] });
  });

  test('without a run, and where the system takes the pointer away, neither', () => {
    const path = [down(at(300)), move(at(400)), move(at(400, 50)), move(at(350, 50))];
    expect(done([...path, up(at(300))], scene({ mode: 'circle', shift: null })).effects).toEqual([
      { do: 'leave mode' },
    ]);
    expect(done([...path, { kind: 'cancel' }], circle).effects).toEqual([{ do: 'leave mode' }]);
  });
});

describe('two fingers', () => {
  const begun = [down(at(200, 150), { finger: 1 }), down(at(600, 50), { finger: 2 })];

  test('keep under them what was there: twice as far apart is half as much', () => {
    const { effects } = done([...begun, move(at(0, 150), 1), move(at(800, 50), 2)]);
    const looks = of(effects, 'look');
    const { from, to } = looks[looks.length - 1].sight;
    // 2 s stays under the first finger at its new place 0, and 6 s under the second at 800.
    expect(from).toBeCloseTo(2, 12);
    expect(from + 0.8 * (to - from)).toBeCloseTo(6, 12);
    // Upright they have not moved apart.
    const { range } = of(effects, 'scale')[0];
    expect(range.from).toBeCloseTo(0, 12);
    expect(range.to).toBeCloseTo(2, 12);
    expect(of(effects, 'mark')).toEqual([]);
  });

  test('one that lifts ends it, and the other marks nothing afterwards', () => {
    const { hand, effects } = done([
      ...begun,
      move(at(100), 1),
      up(at(100), 1),
      move(at(700), 2),
      up(at(700), 2),
    ]);
    expect(of(effects, 'mark')).toEqual([]);
    expect(of(effects, 'put cursor')).toEqual([]);
    expect(hand).toEqual(restingHand);
  });

  test('a third finger changes nothing', () => {
    const { hand } = done([...begun, down(at(900), { finger: 3 })]);
    expect(hand.doing.is).toBe('pinching');
    expect(done([up(at(900), 3)], scene(), hand).hand.doing.is).toBe('pinching');
  });
});

describe('the wheel', () => {
  const wheel = (others: Partial<Extract<HandEvent, { kind: 'wheel' }>>): HandEvent => ({
    kind: 'wheel',
    at: at(250, 50),
    turned: -1,
    isShift: false,
    ...others,
  });

  test('keeps the time under the pointer, counted from the part of the axis that is wanted', () => {
    const { effects } = done([wheel({})], scene({ wantedSight: { from: 2, to: 6 } }));
    expect(effects.map((effect) => effect.do)).toEqual(['hold', 'look', 'settle soon']);
    const { from, to } = of(effects, 'look')[0].sight;
    expect(to - from).toBeCloseTo(4 / 1.18, 12);
    expect(from + 0.25 * (to - from)).toBeCloseTo(3, 12);
  });

  test('with Shift it turns the upright axis of the trace under it, from where a hand has set it', () => {
    const over = scene({ scales: { 'x/left': { from: 1, to: 3 } } });
    const { effects } = done([wheel({ isShift: true, turned: 1 })], over);
    const { axis, range } = of(effects, 'scale')[0];
    expect(axis).toBe('x/left');
    expect(range.to - range.from).toBeCloseTo(2 * 1.18, 12);
    expect(range.from + 0.75 * (range.to - range.from)).toBeCloseTo(2.5, 12);
  });
});

describe('a pointer that presses nothing', () => {
  const hovers = (events: readonly HandEvent[], over = scene()) => {
    let hand = restingHand;
    return events.flatMap((event) => {
      const [next, effects] = step(hand, event, over);
      hand = next;
      return effects;
    });
  };

  test('reads what is under it, and nothing beside the plots or when it has left', () => {
    expect(hovers([move(at(250)), move(at(-3)), move(at(1003)), { kind: 'leave' }])).toEqual([
      { do: 'hover', at: 2.5 },
      { do: 'hover', at: null },
      { do: 'hover', at: null },
      { do: 'hover', at: null },
    ]);
  });

  test('over one quantity against another the nearest point is asked for, in pixels of both axes', () => {
    const over = scene({ horizontal: 'channel:F', horizontalUnit: parseUnit('N') });
    expect(hovers([move(at(250, 50))], over)).toEqual([
      {
        do: 'hover near',
        question: {
          of: 'channel:x',
          along: 'channel:F',
          units: { x: parseUnit('N'), y: metre },
          place: { x: 2.5, y: 1.5 },
          axes: { x: { from: 0, to: 10, pixels: 1000 }, y: { from: 0, to: 2, pixels: 200 } },
          reach: 40,
        },
      },
    ]);
    expect(hovers([move(at(250, 500))], over)).toEqual([{ do: 'hover', at: null }]);
    const { effects } = done([down(at(250, 50)), up(at(250, 50))], over);
    expect(of(effects, 'put cursor near')).toMatchObject([{ isSecond: false }]);
  });

  test('a finger reads nothing while it moves', () => {
    expect(hovers([move(at(250), 7)])).toEqual([{ do: 'hover', at: null }]);
  });
});

test.each([
  [1, false, 1],
  [-1, true, -10],
] as const)(
  'an arrow key %s (with Shift: %s) moves the cursor by %s readings',
  (direction, isShift, readings) => {
    expect(done([{ kind: 'arrow', direction, isShift }]).effects).toEqual([{ do: 'step cursor', readings }]);
  },
);
