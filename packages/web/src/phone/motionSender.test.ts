import { readSenml } from '@heuristor/core';
import { MotionSender, packOf } from './motionSender';

const felt = (x: number, y: number, z: number) => ({ accelerationIncludingGravity: { x, y, z } });

/** A browser whose phone moves when a test says so, and a server that answers as it says. */
function phone() {
  let hear: ((event: unknown) => void) | null = null;
  const posted: { body: string; headers: Record<string, string> }[] = [];
  const state = { status: 204 as number | 'away' };
  const said = { sent: [] as number[], faults: [] as string[] };
  Object.assign(globalThis, {
    window: {
      addEventListener: (_: string, listener: (event: unknown) => void) => (hear = listener),
      removeEventListener: () => (hear = null),
    },
    fetch: (_path: string, request: { body: string; headers: Record<string, string> }) => {
      posted.push(request);
      return state.status === 'away'
        ? Promise.reject(new TypeError('no network'))
        : Promise.resolve(new Response(null, { status: state.status }));
    },
  });
  const sender = new MotionSender(
    'secret',
    (count) => said.sent.push(count),
    (fault) => said.faults.push(fault),
  );
  sender.start();
  return { posted, state, said, sender, move: (x: number) => hear?.(felt(x, 0, 9.81)), isHeard: () => hear };
}

const { fetch: before } = globalThis;
beforeEach(() => jest.useFakeTimers());
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = before;
  Reflect.deleteProperty(globalThis, 'window');
});
const pass = (milliseconds: number) => jest.advanceTimersByTimeAsync(milliseconds);

test('a pack is SenML: three axes, their unit, and a time for each reading', () => {
  const pack = packOf([
    { at: 1_772_000_000, x: 1, y: 2, z: 3 },
    { at: 1_772_000_000.02, x: 4, y: 5, z: 6 },
  ]);
  const records = readSenml(pack);
  expect(records.map(({ name, unit, value }) => [name, unit, value])).toEqual([
    ['ax', 'm/s2', 1],
    ['ay', 'm/s2', 2],
    ['az', 'm/s2', 3],
    ['ax', 'm/s2', 4],
    ['ay', 'm/s2', 5],
    ['az', 'm/s2', 6],
  ]);
  expect(records[5].time - records[0].time).toBeCloseTo(0.02, 6);
});

test('what is felt goes out five times a second, with the token, and is counted', async () => {
  const { posted, said, move, sender } = phone();
  for (const x of [1, 2, 3]) move(x);
  await pass(200);
  move(4);
  await pass(200);
  expect(posted).toHaveLength(2);
  expect(posted[0].headers.Authorization).toBe('Bearer secret');
  expect(said.sent).toEqual([3, 4]);
  sender.stop();
});

test.each(['away', 503] as const)('a server that is %p for a moment costs nothing', async (status) => {
  const { posted, state, said, move, sender } = phone();
  state.status = status;
  move(1);
  await pass(200);
  state.status = 204;
  move(2);
  await pass(200);
  expect(readSenml(JSON.parse(posted[1].body)).filter(({ name }) => name === 'ax')).toHaveLength(2);
  expect(said).toEqual({ sent: [2], faults: [] });
  sender.stop();
});

test.each([
  [401, 'not let in any more'],
  [400, 'does not take'],
])('an answer of %p ends it, and says so', async (status, words) => {
  const { state, said, move, isHeard } = phone();
  state.status = status;
  move(1);
  await pass(200);
  expect(said.faults).toHaveLength(1);
  expect(said.faults[0]).toContain(words);
  expect(isHeard()).toBeNull();
  await pass(1000);
  expect(said.faults).toHaveLength(1);
});
