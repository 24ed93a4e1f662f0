import { join } from 'node:path';
import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { BenchHand } from './support/bench';
import { type System, until } from './support/system';

// What hands and keys do where people expect it: at the place that the eye sees, to the thing that has the focus.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const rows = Array.from(
  { length: 300 },
  (_, i) => `${(i * 0.02).toFixed(2)},${(0.05 * Math.sin(i * 0.13)).toFixed(6)}`,
);
const swing = `t (s),x (m)\n${rows.join('\n')}\n`;
const begin = async (name: string) => {
  await system.open('/');
  await hand.type('Name of the new investigation', name);
  await hand.waitForText('No run yet');
};
const bring = (name: string) => hand.bring(join(system.downloads, '..', `${name}.csv`), swing, name);
const key = async (name: string) => {
  await system.page.keyboard.press(name as 'Tab');
  await atRest(system.page);
};
const focused = () =>
  system.page.evaluate(
    () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '',
  );
const fieldText = (label: string) =>
  system.page.$eval(`input[aria-label="${label}"]`, (field) => (field as HTMLInputElement).value);
/** What the server has of a run besides its readings. */
const stored = (run: number) =>
  system.page.evaluate(async (number: number) => {
    const { runs } = (await (await fetch(`/api${location.pathname}`)).json()) as {
      runs: { conditions: object; group: string; remark: string }[];
    };
    const { conditions, group, remark } = runs[number - 1];
    return JSON.stringify([conditions, group, remark]);
  }, run);
const timeAxis = async () => {
  const said = await system.page.$eval('[aria-label^="Axis of t:"]', (grip) =>
    grip.getAttribute('aria-label'),
  );
  return [...(said ?? '').replaceAll('−', '-').matchAll(/-?\d+(\.\d+)?/g)].map(([text]) => Number(text));
};
/** What lies uppermost where a pointer would be. */
const uppermost = (x: number, y: number) =>
  system.page.evaluate(
    (left: number, top: number) =>
      document.elementFromPoint(left, top)?.closest('[aria-label]')?.getAttribute('aria-label') ?? '',
    x,
    y,
  );
const regions = () =>
  system.page.$$eval('.region-ends', (all) =>
    all.map((ends) => [...ends.querySelectorAll('input')].map(({ value }) => Number(value))),
  );

test('the time axis is dragged, stretched at its end and pressed where its numbers stand', async () => {
  await begin('Axis');
  await bring('axis swing');
  const { x, y, width, height } = await hand.boxOf('[aria-label^="Axis of t:"]');
  for (const share of [0.05, 0.3, 0.5, 0.7, 0.95])
    expect(await uppermost(x + share * width, y + height / 2)).toMatch(/^Axis of t:/);
  const [from, to] = await timeAxis();
  const drag = async (start: number, end: number) => {
    await system.page.mouse.move(x + start * width, y + height / 2);
    await system.page.mouse.down();
    await system.page.mouse.move(x + end * width, y + height / 2, { steps: 6 });
    await system.page.mouse.up();
    await atRest(system.page);
  };
  await drag(0.5, 0.4);
  const moved = await timeAxis();
  expect(moved[0]).toBeCloseTo(from + 0.1 * (to - from), 1);
  expect(moved[1] - moved[0]).toBeCloseTo(to - from, 1);
  await drag(0.95, 0.5);
  const stretched = await timeAxis();
  expect(stretched[0]).toBeCloseTo(moved[0], 2);
  expect(stretched[1] - stretched[0]).toBeGreaterThan(1.5 * (to - from));
  await system.page.mouse.click(x + width / 2, y + height / 2);
  await hand.type('Lower end of the axis', '1');
  await hand.type('Upper end of the axis', '3');
  await atRest(system.page);
  expect(await timeAxis()).toEqual([1, 3]);
  await hand.press('All of the data');
  await key('Escape');
});

test('a region that begins near the edge of another leaves it where it is; the edge is taken by its handle', async () => {
  await hand.mark(1, 3);
  await key('Escape');
  const overlay = await hand.boxOf('[data-testid="overlay"]');
  const handle = await hand.boxOf('[aria-label="End of region A"][role="slider"]');
  const edge = handle.x + handle.width;
  const [[start, end]] = await regions();
  // Two pixels off the edge, in the middle of the trace.
  await system.page.mouse.move(edge + 2, overlay.y + overlay.height / 2);
  await system.page.mouse.down();
  await system.page.mouse.move(edge + 120, overlay.y + overlay.height / 2, { steps: 6 });
  await system.page.mouse.up();
  await atRest(system.page);
  const both = await regions();
  expect(both).toHaveLength(2);
  expect(both[0]).toEqual([start, end]);
  expect(both[1][0]).toBeCloseTo(end, 1);
  // The handle moves the edge by as much as the hand moves, and does not jump to it.
  const { x, y, width, height } = await hand.boxOf('[aria-label="End of region A"][role="slider"]');
  const perPixel = (both[1][1] - both[1][0]) / 118;
  await system.page.mouse.move(x + width / 2, y + height / 2);
  await system.page.mouse.down();
  await system.page.mouse.move(x + width / 2 - 30, y + height / 2, { steps: 6 });
  await system.page.mouse.up();
  await atRest(system.page);
  expect((await regions())[0][1]).toBeCloseTo(end - 30 * perPixel, 1);
});

test('conditions typed one after the other, with Tab, on a slow network: each is kept, in the order in which they are read', async () => {
  await begin('Conditions');
  for (const [name, unit] of [
    ['mass', 'kg'],
    ['length', 'm'],
    ['surface', ''],
  ]) {
    await hand.press('Condition', '.conditions');
    await hand.element('input[aria-label="Name of the new condition"]:focus');
    // The menu has the focus where typing begins.
    await system.page.keyboard.type(name);
    await key('Tab');
    await system.page.keyboard.type(unit);
    await key('Enter');
    await hand.element(`input[aria-label="${name} of the first run"]`);
  }
  // Before the first run.
  await hand.type('mass of the first run', '0.3');
  await hand.type('Group of the first run', 'The terns');
  await bring('conditions swing');
  await hand.element('input[aria-label="mass of run 1"]');
  const network = await system.page.createCDPSession();
  await network.send('Network.enable');
  const slow = { offline: false, latency: 500, downloadThroughput: -1, uploadThroughput: -1 };
  await network.send('Network.emulateNetworkConditions', slow);
  await (await hand.element('input[aria-label="mass of run 1"]')).click({ count: 3 });
  await system.page.keyboard.type('0.48');
  await key('Tab');
  expect(await focused()).toBe('length of run 1');
  await system.page.keyboard.type('1.2 m');
  await key('Tab');
  expect(await focused()).toBe('surface of run 1');
  await system.page.keyboard.type('sand');
  await key('Tab');
  expect(await focused()).toBe('Group of run 1');
  await system.page.keyboard.type('The gulls');
  await key('Tab');
  expect(await focused()).toBe('Note on run 1');
  await system.page.keyboard.type('wet');
  await key('Tab');
  await until(
    () => stored(1),
    (run) => ['0.48', '1.2', 'sand', 'The gulls', 'wet'].every((typed) => run.includes(typed)),
    20,
  );
  await network.send('Network.emulateNetworkConditions', { ...slow, latency: 0 });
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('input[aria-label="mass of run 1"]');
  const said: string[] = [];
  for (const label of ['mass of', 'length of', 'surface of', 'Group of', 'Note on'])
    said.push(await fieldText(`${label} run 1`));
  expect(said).toEqual(['0.48', '1.2', 'sand', 'The gulls', 'wet']);
});

test('conditions of a run that is not in front stand in the table of all runs; Enter goes down a column', async () => {
  await bring('second swing');
  await hand.element('input[aria-label="mass of run 2"]');
  await hand.menu('Conditions: names, and of all runs', 'Conditions of all runs');
  await (await hand.element('.modal input[aria-label="mass of run 1"]')).click({ count: 3 });
  await system.page.keyboard.type('0.5');
  await key('Enter');
  expect(await focused()).toBe('mass of run 2');
  await system.page.keyboard.type('0.7');
  await key('Tab');
  await until(
    () => stored(2),
    (run) => run.includes('0.7'),
  );
  await hand.pressLabelled('Close');
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('input[aria-label="mass of run 2"]');
  expect(await fieldText('mass of run 2')).toBe('0.7');
  await hand.menu('Conditions: names, and of all runs', 'Conditions of all runs');
  expect(await fieldText('mass of run 1')).toBe('0.5');
  await hand.pressLabelled('Close');
});

test('two screens that type different conditions of one run keep both', async () => {
  const other = await system.newPage(new URL(system.page.url()).pathname);
  const others = new BenchHand(other);
  await others.element('input[aria-label="length of run 2"]');
  await others.type('length of run 2', '2');
  await hand.type('surface of run 2', 'ice');
  await until(
    () => stored(2),
    (run) => run.includes('ice') && run.includes('2'),
  );
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('input[aria-label="mass of run 2"]');
  expect([await fieldText('length of run 2'), await fieldText('surface of run 2')]).toEqual(['2', 'ice']);
  await other.close();
});

test('on a phone the conditions can be typed too', async () => {
  await system.page.setViewport({ width: 390, height: 780 });
  try {
    await hand.type('mass of run 2', '0.9');
    await atRest(system.page);
    expect(await fieldText('mass of run 2')).toBe('0.9');
  } finally {
    await system.page.setViewport({ width: 1280, height: 800 });
  }
});

test('Space presses what has the focus; elsewhere it records', async () => {
  await hand.begin(system.site, 'Space', ['K9-W']);
  await hand.lengthOfRun('0.3');
  const runs = () => system.page.$$eval('.chip', (all) => all.length);
  const isPractice = () =>
    system.page.$eval('#plan-practice', (field) => (field as HTMLInputElement).checked);
  await (await hand.element('#plan-practice')).focus();
  await key('Space');
  await atRest(system.page);
  expect([await isPractice(), await runs()]).toEqual([true, 0]);
  await key('Space');
  await atRest(system.page);
  expect(await isPractice()).toBe(false);
  const before = await runs();
  await (await hand.element('::-p-xpath(//button[contains(., "Work out")])')).focus();
  await key('Space');
  await hand.element('.choice-palette input:focus');
  await atRest(system.page);
  expect(await runs()).toBe(before);
  await key('Escape');
  await system.page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await hand.record();
  expect(await runs()).toBe(1);
  // So does a part of the plan that was opened with the mouse and left with Escape.
  await hand.plan('Repetition', () => hand.choose('times-once'));
  await hand.record();
  expect(await runs()).toBe(2);
  // A button that the mouse has pressed gives the keys back: the next run is one press of Space away.
  await hand.pressLabelled('Table of numbers');
  await hand.record();
  expect(await runs()).toBe(3);
});

test('a new formula, constant or text has the focus: what is typed goes into it', async () => {
  for (const [item, label, text] of [
    ['Series by a formula', 'Formula', 'v = 2 x'],
    ['Result by a formula', 'Formula', 'q = 3 [m]'],
    ['Constant', 'Value of ', '4.5'],
  ]) {
    await hand.press('Work out');
    await hand.element('.choice-palette input:focus');
    await system.page.keyboard.type(item);
    await key('Enter');
    await atRest(system.page);
    expect(await focused()).toContain(label);
    await system.page.keyboard.type(text);
    expect(await system.page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe(text);
    await key('Enter');
    await key('Escape');
  }
});
