import { join } from 'node:path';
import { normalRandom } from '@heuristor/core';
import { BenchHand } from './support/bench';
import { type System, pause, startSystem } from './support/system';

// Numbers as a person reads them on the cards: temperatures, bounded fits, comparisons, what ± means.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  system = await startSystem();
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
}, 60_000);
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const bring = (name: string, text: string) =>
  hand.bring(join(system.downloads, '..', `${name}.csv`), text, name);
const begin = async (name: string) => {
  await system.open('/');
  await hand.type('Name of the new investigation', name);
  await hand.waitForText('No run yet');
};
const workOut = async (item: string) => {
  await hand.press('Work out');
  await pause(150);
  await hand.item(item);
};
const typeFormula = async (text: string) => {
  const field = await hand.element('input[aria-label="Formula"]');
  await field.click({ count: 3 });
  await system.page.keyboard.type(text);
};
const constant = async (name: string, value: string, unit: string) => {
  await hand.waitForText(`Nothing here is called ${name} yet.`);
  await hand.press(`Make ${name} a constant`);
  await hand.type(`Value of ${name}`, value);
  await hand.type(`Unit of ${name}`, unit);
};

/** Water that cools from 81 °C towards 21 °C, with a time constant of 8 s. */
const cooling = () => {
  const random = normalRandom(5);
  const rows = Array.from({ length: 200 }, (_, i) => {
    const t = i * 0.1;
    return `${t.toFixed(1)},${(21 + 60 * Math.exp(-t / 8) + 0.02 * random()).toFixed(4)}`;
  });
  return `t (s),T (°C)\n${rows.join('\n')}\n`;
};

test('a mean of a temperature is in °C, its range in K, and a heat counts the difference', async () => {
  await begin('Cooling');
  await bring('cooling', cooling());
  await hand.mark(0, 19.8);
  await hand.offer('T', 'mean');
  await hand.result('mean of T', 'mean');
  const card = await hand.shownText('mean of T');
  expect(card).toMatch(/mean\s*=?\s*[\d.]+( ± [\d.]+)? °C/);
  expect(card).toMatch(/range\s*=?\s*[\d.]+ K/);
  expect(card).toMatch(/sd\s*=?\s*[\d.]+ K/);
  expect(card).toContain('± is by the noise of the readings; the quantity itself changes here, as sd tells.');
  await workOut('Result by a formula');
  await typeFormula('Q = c m (T2 - T1)');
  await constant('c', '4200', 'J/(kg K)');
  await constant('m', '0.25', 'kg');
  await constant('T2', '60', '°C');
  await constant('T1', '52', '°C');
  await pause(300);
  await (await hand.element('input[aria-label="Formula"]')).click();
  await system.page.keyboard.press('Enter');
  // 4200 J/(kg K) × 0.25 kg × 8 K, by hand.
  expect((await hand.result('c m (T2 - T1)', 'value')).value).toBeCloseTo(8400, 9);
  expect(await hand.shownText('c m (T2 - T1)')).toContain('8400 J');
}, 90_000);

test('a fit whose parameters all end at their bounds says so, and the bench stands, also after a reload', async () => {
  await begin('Bounds');
  const rows = Array.from(
    { length: 40 },
    (_, i) => `${(i * 0.1).toFixed(1)},${(3 + 2 * i * 0.1).toFixed(4)}`,
  );
  await bring('ramp', `t (s),x (m)\n${rows.join('\n')}\n`);
  await hand.mark(0, 3.8);
  await hand.press('more relations …', '.offers');
  await hand.element('[data-relation]');
  await (await hand.element('.relation-ask input')).click();
  await system.page.keyboard.type('a + b t');
  await pause(300);
  await system.page.keyboard.press('Enter');
  await hand.result('x = a + b t', 'b');
  await hand.type('Greatest of a', '1');
  await hand.type('Greatest of b', '0.5');
  await hand.waitForText('a stands at the end of what it may be, 1; it counts as held there');
  await hand.waitForText('b stands at the end of what it may be, 0.5');
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  expect((await hand.result('x = a + b t', 'b')).value).toBe(0.5);
  await hand.waitForText('stands at the end of what it may be');
}, 90_000);

test('a comparison says by how often chance makes the difference', async () => {
  await begin('Two masses');
  // A sheet speaks of runs, so there has to be one.
  await bring('cooling again', cooling());
  await workOut('Result by a formula');
  await typeFormula('d = a - b');
  await constant('a', '9.93', 'N');
  await hand.type('Uncertainty of a', '0.04');
  await constant('b', '9.81', 'N');
  await hand.type('Uncertainty of b', '0.03');
  await pause(300);
  await (await hand.element('input[aria-label="Formula"]')).click();
  await system.page.keyboard.press('Enter');
  await workOut('Comparison of two results');
  // 0.12 N are 2.4 standard uncertainties of 0.05 N; a normal distribution passes that once in 61 times.
  await hand.waitForText(
    'They hardly agree: they are 0.12 N apart, and the standard uncertainty of that is 0.050 N; chance alone makes a difference as large in one case of 61.',
  );
}, 90_000);
