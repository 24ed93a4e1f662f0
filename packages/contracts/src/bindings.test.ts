import { boundKeys } from './bindings';
import { mostQuantities, planSchema, usualPlan } from './plan';

const x = (code: string) => ({ code, channel: 'x', symbol: 'x' });
const all = () => true;

test('x stays the same sensor, whatever order devices come in', () => {
  const first = boundKeys([], [x('K7-D'), x('K3-L')], all);
  expect(first.keys).toEqual(['x', 'x2']);
  expect(boundKeys(first.bindings, [x('K3-L'), x('K7-D')], all).keys).toEqual(['x2', 'x']);
});

test('the key of a sensor that is away for a moment is given to no other', () => {
  const { bindings } = boundKeys([], [x('K7-D'), x('K3-L')], all);
  expect(boundKeys(bindings, [x('K3-L'), x('K9-A')], all).keys).toEqual(['x2', 'x3']);
});

test('the key of a sensor that was disconnected is free again', () => {
  const { bindings } = boundKeys([], [x('K7-D')], all);
  expect(boundKeys(bindings, [x('K9-A')], (code) => code === 'K9-A').keys).toEqual(['x']);
});

test('two channels of one device with one symbol get two keys', () => {
  const { keys } = boundKeys(
    [],
    [
      { code: 'M2-A', channel: 'a', symbol: 'F' },
      { code: 'M2-A', channel: 'b', symbol: 'F' },
    ],
    all,
  );
  expect(keys).toEqual(['F', 'F2']);
});

test('however many sensors come and go, a plan with their bindings can be read', () => {
  let bindings: Parameters<typeof boundKeys>[0] = [];
  for (let n = 0; n < 3 * mostQuantities; n++) {
    const known = boundKeys(bindings, [x('K7-D'), x(`D${n % 1000}-${Math.floor(n / 1000)}`)], all);
    expect(known.keys[0]).toBe('x');
    ({ bindings } = known);
  }
  expect(bindings.length).toBeLessThanOrEqual(mostQuantities);
  expect(planSchema.safeParse({ ...usualPlan, bindings }).success).toBe(true);
});
