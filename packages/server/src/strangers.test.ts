/** @jest-environment node */
import { type Device } from '@heuristor/contracts';
import { Budget } from './presence/budget';
import { until } from './testing/bench';
import { FakeDevice, helloOf } from './testing/fakeDevice';
import { type TestServer, startTestServer } from './testing/testServer';

// Who was not let in takes nothing from those who were: no code, no place, no time.

let server: TestServer;
let isOwn = false;
beforeAll(async () => {
  server = await startTestServer(() => isOwn);
});
afterAll(() => server.close());

const connect = (code: string, own: boolean) => {
  isOwn = own;
  return FakeDevice.connect(server.port, code, () => 1, helloOf(code));
};
const kindOf = (device: FakeDevice) => device.received.map(({ type }) => type);
const devices = async () => (await server.api('get', '/devices').expect(200)).body as Device[];

test('the code of the class’s own sensor is its own, though a stranger waits under it', async () => {
  const stranger = await connect('S1-A', false);
  expect(kindOf(stranger)).toEqual(['waiting']);
  const second = await connect('S1-A', false);
  expect(kindOf(second)).toContain('refused');
  const own = await connect('S1-A', true);
  expect(kindOf(own)[0]).toBe('welcome');
  await stranger.heard(({ type }) => type === 'refused');
  expect((await devices()).filter(({ code }) => code === 'S1-A')).toMatchObject([
    { present: true, waiting: false },
  ]);
  // The one that was turned out takes nothing along when it goes.
  stranger.vanish();
  second.vanish();
  await until(devices, (all) => all.some(({ code, present }) => code === 'S1-A' && present));
  own.vanish();
});

test('strangers have few places, and take none from the sensors of the class', async () => {
  const crowd: FakeDevice[] = [];
  for (let i = 0; i < 30; i++) crowd.push(await connect(`X${i}-Z`, false));
  expect(crowd.filter((one) => kindOf(one)[0] === 'waiting')).toHaveLength(20);
  expect(crowd.filter((one) => kindOf(one)[0] === 'refused')).toHaveLength(10);
  const own = await connect('S2-A', true);
  expect(kindOf(own)[0]).toBe('welcome');
  crowd.forEach((one) => one.vanish());
  own.vanish();
  await until(devices, (all) => !all.some(({ waiting }) => waiting));
}, 30_000);

test('devices that have gone leave their places to others', async () => {
  for (let first = 0; first < 510; first += 30) {
    const some = await Promise.all(Array.from({ length: 30 }, (_, i) => connect(`G${first + i}-A`, true)));
    for (const one of some) {
      expect(kindOf(one)[0]).toBe('welcome');
      one.vanish();
    }
    await until(devices, (all) => !all.some(({ code, present }) => code.startsWith('G') && present));
  }
  expect((await devices()).length).toBeLessThanOrEqual(500);
}, 300_000);

test.each([
  ['a stranger', false, 'F1-A'],
  ['a device of the class', true, 'F2-A'],
])('%s that says the same hundreds of times a second is shut out, and others go on', async (_, own, code) => {
  const flood = await connect(code, own);
  const said = JSON.stringify({ type: 'kept', clock: 1, room: 100, runs: [] });
  const begun = Date.now();
  while (Date.now() - begun < 4000 && !kindOf(flood).includes('refused')) {
    for (let i = 0; i < 20; i++) flood.sendRaw(said);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  await flood.heard(({ type }) => type === 'refused');
  const asked = Date.now();
  await devices();
  // A busy machine takes its time; a server that was blocked would not answer at all.
  expect(Date.now() - asked).toBeLessThan(3000);
  flood.vanish();
});

test('a budget is spent and comes back with time', () => {
  let now = 0;
  const budget = new Budget(10, 3, () => now);
  expect([1, 2, 3, 4].map(() => budget.spend())).toEqual([true, true, true, false]);
  now += 100;
  expect([budget.spend(), budget.spend()]).toEqual([true, false]);
});
