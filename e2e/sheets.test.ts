import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { barriersOn } from './support/barriers';
import { type BenchHand } from './support/bench';
import { type System, until } from './support/system';

// How sheets are used: regions that hang on each run, templates, entries that are copied, checks of numbers; over the demo.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

async function open(name: string): Promise<void> {
  await hand.openCopy(system.site, name);
  await hand.element('.groups[aria-busy="false"] .card-value .btn-number');
}

const ends = async (letter: string): Promise<[number, number]> => {
  const value = (which: string) =>
    system.page.$eval(`input[aria-label="${which} of region ${letter}"]`, (field) =>
      Number((field as HTMLInputElement).value.replace('−', '-')),
    );
  return [await value('Start'), await value('End')];
};
const settled = () => hand.element('.groups[aria-busy="false"]');

test('a region hangs on what happens in each run, lies elsewhere in one, and is put back', async () => {
  await open('three tilts');
  await hand.menu('More for region A', 'Attach its ends');
  await system.page.select('[aria-label="Begins when"] select', 'rises');
  await hand.type('Begins when: level', '0.2');
  await system.page.select('[aria-label="Ends when"] select', 'rises');
  await hand.type('Ends when: level', '1');
  await hand.menu('More for region A', 'Done changing');
  await hand.waitForText('from x rises through 0.2 m, to x rises through 1 m');
  await atRest(system.page);
  const accelerations = await hand.named('the path', 'curvature');
  expect(accelerations).toHaveLength(3);
  // It is one acceleration a run, whatever the moment at which it was let go: g (sin θ − 0.01 cos θ).
  [4, 6, 8].forEach((tilt, i) => {
    const angle = (tilt * Math.PI) / 180;
    const truth = 9.80665 * (Math.sin(angle) - 0.01 * Math.cos(angle));
    expect(Math.abs(accelerations[i].value / truth - 1)).toBeLessThan(0.01);
  });
  expect(await barriersOn(system.page)).toEqual([]);
  await hand.menu('More for region A', 'Adjust in 8° tilt alone');
  await hand.waitForText('Lies elsewhere in 8° tilt.');
  const before = await ends('A');
  const handle = await hand.element('.region-handle[aria-label="End of region A"]');
  const box = await handle.boundingBox();
  if (box === null) throw new Error('no handle');
  await system.page.keyboard.down('Shift');
  await system.page.mouse.move(box.x + 6, box.y + box.height / 2);
  await system.page.mouse.down();
  await system.page.mouse.move(box.x - 34, box.y + box.height / 2, { steps: 6 });
  await system.page.mouse.up();
  await system.page.keyboard.up('Shift');
  await settled();
  const after = await ends('A');
  expect(after[1]).toBeLessThan(before[1] - 0.05);
  // Shift keeps its width; the ends are written to hundredths, as the readings are.
  expect(Math.abs(after[1] - after[0] - (before[1] - before[0]))).toBeLessThan(0.011);
  // The other runs are cut as they were.
  const [first] = await hand.named('the path', 'curvature');
  expect(first.value).toBe(accelerations[0].value);
  await hand.press('Put it back');
  await settled();
  await atRest(system.page);
  expect((await ends('A'))[1]).toBeCloseTo(before[1], 3);
});

test('a sheet is kept as a template, put onto another investigation, removed and put back', async () => {
  await open('three tilts');
  await hand.press('Templates');
  await hand.item('Keep this sheet');
  await (await hand.element('#template-name')).type('Three tilts');
  await (await hand.element('#template-about')).type('acceleration on a slipway');
  expect(await barriersOn(system.page)).toEqual([]);
  await hand.press('Keep', '.modal');
  await hand.waitForText('“Three tilts” is kept as a template');
  await open('one acceleration, three ways');
  await hand.template('Three tilts');
  expect(await hand.named('acceleration from v', 'slope')).toHaveLength(3);
  await hand.press('Templates');
  await hand.item('Keep this sheet');
  await hand.pressLabelled('Remove the template Three tilts');
  await hand.waitForText('The template “Three tilts” was removed.');
  await system.page.keyboard.press('Escape');
  await hand.press('Put it back');
  await system.page.waitForSelector('.modal', { hidden: true });
  await hand.press('Templates');
  await hand.waitForText('acceleration on a slipway');
  await system.page.keyboard.press('Escape');
});

test('an entry is copied to another investigation with what it speaks of', async () => {
  await open('one acceleration, three ways');
  await open('where its energy goes');
  await hand.menu('More for E', 'Copy to another investigation');
  expect(await barriersOn(system.page)).toEqual([]);
  await (await hand.element('input[aria-label="Find an investigation"]')).type('three ways (copy)');
  await hand.press('Lifeboat: one acceleration, three ways (copy)', '.modal');
  await hand.waitForText('Copied to “Lifeboat: one acceleration, three ways (copy)”');
  await hand.press('Open it');
  await hand.waitForText('the path');
  await settled();
  const names = await system.page.$$eval('.entry-name', (all) => all.map(({ textContent }) => textContent));
  expect(names).toEqual(expect.arrayContaining(['K = ', 'V = ', 'E = ', 'm']));
  expect(names.filter((name) => name?.startsWith('v'))).toEqual(['v = ']);
  expect(await system.page.$$eval('[data-kind="formulaSeries"] .refused', (all) => all.length)).toBe(0);
});

test('a result is drawn many times beside first order; a constant comes from repeats', async () => {
  await open('three amplitudes');
  await (await hand.element('[data-entry="g"] .btn-number')).click();
  await hand.press('Check by Monte Carlo (200 000 draws)');
  await hand.waitForText('first order is good enough here');
  await hand.unfoldNamed('l');
  await hand.type('Repeats of l', '0.598 0.601 0.602 0.599');
  await settled();
  await system.page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('input[aria-label="Value of l"]')?.value === '0.6',
    { timeout: 40_000, polling: 100 },
  );
  // s = 1.83 mm, over √4 0.913 mm.
  const doubt = await system.page.$eval('input[aria-label="Uncertainty of l"]', (field) =>
    Number((field as HTMLInputElement).value),
  );
  expect(doubt).toBeCloseTo(0.000913, 6);
});

test('one relation goes through all runs; a fit shows its band, and goes on beyond its region', async () => {
  await open('soft and stiff spring');
  await hand.menu('More for the swing', 'One fit through all runs');
  await hand.waitForText('The runs do not have all of these in common');
  expect(await barriersOn(system.page)).toEqual([]);
  const values = await system.page.$$eval(
    '[data-parameter="period"] td:last-child > div',
    (all) => all.length,
  );
  expect(values).toBe(1);
  await system.page.keyboard.press('Escape');
  await hand.menu('More for the swing', 'Show the band');
  await hand.menu('More for the swing', 'Show it beyond');
  await hand.menu('More for the swing', 'Hide the band');
});

test('smoothing lies over its raw series, and is moved while both are seen', async () => {
  await open('soft and stiff spring');
  await hand.press('Work out');
  await hand.item('Smoothing of x');
  await hand.waitForText('x smoothed over 9 readings');
  const traces = await system.page.$$eval('[data-trace]', (all) => all.length);
  expect(traces).toBe(3);
  const slider = await hand.element('input[aria-label="Window of x_s in readings"]');
  await slider.focus();
  for (let i = 0; i < 6; i++) await system.page.keyboard.press('ArrowRight');
  await hand.waitForText('x smoothed over 21 readings');
  await hand.menu('More for x_s', 'Change');
  await system.page.select('[aria-label="x smoothed over 21 readings"] select[id$="way"]', 'median');
  await hand.waitForText('running median of x over 21 readings');
  // The same window in seconds slides over seconds.
  await system.page.select(
    '[aria-label="running median of x over 21 readings"] select[id$="windowIn"]',
    'seconds',
  );
  const inSeconds = await hand.element('input[aria-label="Window of x_s in seconds"]');
  await inSeconds.focus();
  const lengthNow = () => inSeconds.evaluate((element) => Number((element as HTMLInputElement).value));
  const before = await lengthNow();
  for (let i = 0; i < 3; i++) await system.page.keyboard.press('ArrowRight');
  await hand.waitForText(`running median of x over ${await lengthNow()} s`);
  expect(await lengthNow()).toBeGreaterThan(before);
});

test('every number that is worked out shows how: a slope by its sums, a fit by its relation', async () => {
  await open('Mooring cord');
  await (await hand.element('[data-kind="slope"] .card-value .btn-number')).click();
  await hand.element('[aria-label="How slope is worked out"] .katex');
  const working = await system.page.$eval(
    '[aria-label="How slope is worked out"]',
    (shown) => shown.querySelectorAll('.katex').length,
  );
  // The formula, the numbers put in, what comes out.
  expect(working).toBe(3);
  await open('Beacon');
  await (await hand.element('[data-kind="fit"] .card-value .btn-number')).click();
  await hand.waitForText('is the time constant.');
  expect(await barriersOn(system.page)).toEqual([]);
});

test('what is out of sight follows a hand once it pauses, and stands as the sheet says when it lets go', async () => {
  await open('three amplitudes');
  const away = await system.page.$$eval('.result-card', (cards) => {
    const last = cards[cards.length - 1];
    return { id: last.getAttribute('data-entry') ?? '', top: last.getBoundingClientRect().top };
  });
  const textOf = (id: string) =>
    system.page.$eval(`[data-entry="${id}"] .card-value`, (results) => results.textContent);
  // So low that nobody sees it.
  await system.page.setViewport({ width: 1280, height: 420 });
  await atRest(system.page);
  expect(away.top).toBeGreaterThan(420);
  const before = await textOf(away.id);
  const [handle] = await system.page.$$('[role="slider"][aria-label^="End of region"]');
  const box = await handle.boundingBox();
  if (box === null) throw new Error('no handle');
  await system.page.mouse.move(box.x + box.width / 2, box.y + 30);
  await system.page.mouse.down();
  for (let i = 1; i <= 6; i++) {
    await system.page.mouse.move(box.x + box.width / 2 - 20 * i, box.y + 30);
  }
  // The hand is still down.
  await until(
    () => textOf(away.id),
    (paused) => paused !== before,
  );
  await system.page.mouse.up();
  await hand.saved();
  await atRest(system.page);
  const settled = await textOf(away.id);
  await system.page.setViewport({ width: 1280, height: 800 });
  await system.page.reload({ waitUntil: 'load' });
  await hand.element(`[data-entry="${away.id}"] .card-value`);
  await until(
    () => textOf(away.id),
    (again) => again === settled,
  );
});
