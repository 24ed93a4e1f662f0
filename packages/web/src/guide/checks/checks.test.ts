import { type CheckKind, type GuideCheck, usualPlan } from '@heuristor/contracts';
import { type SeenRun } from '../../runs/seenRun';
import { type Quantity } from '../../sensors/sensors';
import { type CheckedBench } from './check';
import { checkKindsHere } from '.';

/** A motion sensor as a stand-in declares it: 0.3 mm of noise, steps of 0.1 mm. */
const motion = (more: { rate?: number; zeroed?: boolean; zeroAtStart?: boolean } = {}): Quantity =>
  ({
    key: 'x',
    device: { code: 'K7-D', calibration: { zeros: more.zeroed === true ? { x: { offset: 0 } } : {} } },
    stream: { sampling: 'regular', rate: more.rate ?? 20 },
    channel: { key: 'x', noise: 0.0003, resolution: 0.0001, zeroAtStart: more.zeroAtStart === true },
    index: 0,
  }) as unknown as Quantity;

const threadOf = (values: readonly number[]) => ({
  times: values.map((_, i) => 100 + i / 50),
  values: [...values],
  revision: 0,
  standing: null,
  since: 0,
  lasted: null,
});
const run = (name: string, conditions = {}): SeenRun =>
  ({ name, state: 'ended', conditions }) as unknown as SeenRun;

function bench(parts: {
  quantity?: Quantity | null;
  values?: readonly number[];
  runs?: SeenRun[];
  readings?: { times: Float64Array; values: Float64Array };
}): CheckedBench {
  const { quantity = motion(), values = [], runs = [], readings = null } = parts;
  const columns = [{ key: 'm', name: 'mass', kind: 'number', unit: 'kg' } as const];
  return {
    quantities: quantity === null ? [] : [quantity],
    plan: { ...usualPlan, conditions: columns },
    runs,
    threadOf: () => threadOf(values),
    readingsOf: () => readings,
  };
}
const stateOf = (kind: CheckKind, on: CheckedBench, number: number | null = null, unit = '') => {
  const check: GuideCheck = { id: 'c', kind, channel: 'x', number, unit };
  const { isMet, says } = checkKindsHere[kind].stateOf(check, on);
  return isMet ? 'met' : says;
};
const still = Array.from({ length: 100 }, (_, i) => 0.5 + 0.0002 * (i % 2));
const rising = Array.from({ length: 200 }, (_, i) => 0.5 + Math.max(0, i - 60) * 0.002);

test('a sensor, its rate and its zero', () => {
  expect(stateOf('connected', bench({ quantity: null }))).toBe('Connect one.');
  expect(stateOf('connected', bench({}))).toBe('met');
  expect(stateOf('rate', bench({}), 50)).toContain('Press the rate in the plan.');
  expect(stateOf('rate', bench({ quantity: motion({ rate: 50 }) }), 50)).toBe('met');
  expect(stateOf('rate', bench({ quantity: null }), 50)).toBe('No sensor here measures x.');
  expect(stateOf('zeroed', bench({}))).toBe('Let it rest, and press Zero at K7-D.');
  expect(stateOf('zeroed', bench({ quantity: motion({ zeroed: true }) }))).toBe('met');
  expect(stateOf('zeroed', bench({ quantity: motion({ zeroAtStart: true }) }))).toBe('met');
});

test('what rests is told from what moves, and from what has hardly been read', () => {
  expect(stateOf('still', bench({ values: still }))).toBe('met');
  expect(stateOf('still', bench({ values: rising }))).toBe('It moves still.');
  expect(stateOf('still', bench({ values: still.slice(0, 10) }))).toBe('');
  expect(stateOf('still', bench({ values: still.map(() => NaN) }))).toBe('');
});

test('the sign is that of the first move that is large enough', () => {
  const falling = rising.map((value) => 1 - value);
  expect(stateOf('sign', bench({ values: rising }), 0.1)).toBe('met');
  expect(stateOf('sign', bench({ values: falling }), -0.1)).toBe('met');
  expect(stateOf('sign', bench({ values: falling }), 0.1)).toBe(
    'It went the other way. Reverse its sign in the set-up of K7-D.',
  );
  expect(stateOf('sign', bench({ values: still }), 0.1)).toBe('');
});

test('a level track: pushed both ways it slows alike, and a tilt says which end to lift', () => {
  const pushed = (tilt: number) => {
    const times = Float64Array.from({ length: 400 }, (_, i) => i / 50);
    // Textbook motion at constant acceleration, friction 0.03 m/s² turned round with it.
    const values = times.map((t) => {
      const [u, w] = [Math.min(t, 3), Math.min(Math.max(0, t - 4), 3)];
      return 0.6 * u + ((tilt - 0.03) / 2) * u * u - 0.6 * w + ((tilt + 0.03) / 2) * w * w;
    });
    return bench({ runs: [run('both ways')], readings: { times, values } });
  };
  expect(stateOf('level', pushed(0), 0.02)).toBe('met');
  expect(stateOf('level', pushed(0.1), 0.02)).toBe(
    'In both ways it is pulled towards larger x by 0.1 m/s². Lift the end to which it is pulled.',
  );
  expect(stateOf('level', bench({ runs: [] }), 0.02)).toBe('');
});

test('runs and their conditions', () => {
  const [typed, bare] = [run('light', { m: { value: 0.5, u: null } }), run('loaded')];
  expect(stateOf('recorded', bench({ runs: [typed] }), 2)).toBe('1 so far.');
  expect(stateOf('recorded', bench({ runs: [typed, bare] }), 2)).toBe('met');
  expect(stateOf('conditions', bench({ runs: [typed, bare] }))).toBe('They are missing of loaded.');
  expect(stateOf('conditions', bench({ runs: [typed] }))).toBe('met');
  expect(stateOf('conditions', bench({ runs: [] }))).toBe('');
});

test('every kind says what it asks for', () => {
  for (const { kind, sentence } of Object.values(checkKindsHere))
    expect([kind, sentence('x', '2')]).toEqual([kind, expect.stringMatching(/^\S.{8,}[^.]$/)]);
});
