import { join } from 'node:path';
import { BenchHand } from './support/bench';
import { type System, startSystem } from './support/system';

// From another machine of the network: under a name, where browsers let a page do less than on the machine itself; and over TLS.

const rows = Array.from({ length: 200 }, (_, i) => `${(i * 0.02).toFixed(2)},${(0.3 * i).toFixed(3)}`);
const file = `t (s),x (m)\n${rows.join('\n')}\n`;

let system: System;
let hand: BenchHand;
const start = async (ways: Parameters<typeof startSystem>[0]) => {
  system = await startSystem({ own: true, ...ways });
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
};
const isSecure = () => system.page.evaluate(() => window.isSecureContext);
/** A lesson in small: a file, a region, an entry, a formula, a label, a text that is copied, a reload. */
async function lesson(): Promise<void> {
  await hand.type('Name of the new investigation', 'From a tablet');
  await hand.waitForText('No run yet');
  await hand.bring(join(system.downloads, '..', 'tablet.csv'), file, 'tablet');
  await hand.mark(0.5, 3);
  await hand.offer('x', 'mean');
  const mean = await hand.result('mean of x', 'mean');
  expect(mean.value).toBeGreaterThan(20);
  await hand.press('Work out');
  await hand.item('Result by a formula');
  await hand.element('input[aria-label="Formula"]:focus');
  await system.page.keyboard.type('q = 3 [m] + 4 [m]');
  await system.page.keyboard.press('Enter');
  expect((await hand.named('q', 'value'))[0].value).toBe(7);
  await hand.pressLabelled('Table of numbers');
  await hand.element('[aria-label="Copy the rows of the region"]:not([disabled])');
  await hand.pressLabelled('Copy the rows of the region');
  await hand.waitForText('copied');
  await hand.pressLabelled('Undo');
  await hand.pressLabelled('Redo');
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  expect((await hand.named('q', 'value'))[0].value).toBe(7);
  expect(system.faults).toEqual([]);
}

describe('over plain HTTP, under the name of the machine', () => {
  beforeAll(() => start({ host: 'classroom.test' }), 60_000);
  afterAll(() => system.close());

  test('everything that a lesson needs works, though the browser trusts the page less', async () => {
    expect(await isSecure()).toBe(false);
    await lesson();
  }, 60_000);

  test('a sensor is recorded', async () => {
    await hand.begin(system.site, 'Sensor from afar', ['K9-W']);
    await hand.lengthOfRun('0.5');
    await hand.record();
    const [run] = await hand.runs();
    expect(run.channels[0].values.length).toBeGreaterThan(20);
  }, 60_000);
});

describe('over TLS, with a certificate of its own', () => {
  beforeAll(
    () => start({ host: 'classroom.test', settings: { HEURISTOR_TLS: '1', HEURISTOR_TLS_PORT: '0' } }),
    60_000,
  );
  afterAll(() => system.close());

  test('browsers trust the page as on the machine itself, and the live stream runs', async () => {
    expect(await isSecure()).toBe(true);
    const cookies = await system.page.browserContext().cookies();
    expect(cookies.map(({ secure }) => secure)).toEqual([true]);
    await lesson();
    await hand.begin(system.site, 'Sensor over TLS', ['K9-W']);
    await hand.lengthOfRun('0.5');
    await hand.record();
  }, 60_000);
});
