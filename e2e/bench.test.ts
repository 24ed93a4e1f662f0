import { type Lab, openLab } from './support/lab';
import { atRest } from './support/atRest';
import { barriersOn } from './support/barriers';
import { cutValues } from './support/cutValues';
import { until } from './support/system';

// The bench as somebody meets it who has never seen it: what it shows before there is a run, and what it offers next.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];

beforeAll(async () => {
  lab = await openLab('buoy', { own: true });
  ({ system, hand } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const words = () => system.page.evaluate(() => document.body.innerText);

test('an empty bench says what to do in three steps; one press leads through a first run on a simulated apparatus', async () => {
  await system.page.goto(system.site, { waitUntil: 'load' });
  await hand.type('Name of the new investigation', 'Never seen it');
  await hand.waitForText('a first one takes three steps');
  expect(await barriersOn(system.page)).toEqual([]);
  await hand.press('Try it now on a simulated channel buoy on its spring');
  // The first step, the apparatus, and what its sensor reads stand on one page.
  await hand.waitForText('Take hold of what hangs or stands');
  await hand.element('.live-trace canvas');
  const buoy = await hand.boxOf('[aria-label="Buoy: pull it and let go"]');
  await system.page.mouse.move(buoy.x + buoy.width / 2, buoy.y + buoy.height / 2);
  await system.page.mouse.down();
  await system.page.mouse.move(buoy.x + buoy.width / 2, buoy.y + buoy.height / 2 + 12, { steps: 4 });
  await system.pass(0.3);
  await system.page.mouse.up();
  // Space records, though the hand has just let go of the drawing.
  await system.page.keyboard.press('Space');
  await hand.waitForText('Run 2 is ready');
  await hand.waitForText('that marks a region');
  await hand.mark(1, 6);
  await hand.waitForText('Press one of the offers');
  await hand.element('.offers[aria-busy="false"] > .offer .offer-value');
  await system.page.click('.offers > .offer');
  await hand.waitForText('That is all');
  await hand.pressLabelled('Done with the first run');
  expect(await words()).not.toContain('That is all');
});

test('what is offered stands outside the curves, the likeliest first, with the value that is then on its card; the bar has served', async () => {
  // A bar of offers covers nothing that was recorded.
  await hand.pressLabelled('Region A');
  const [bar, traces] = [await hand.boxOf('.offers'), await hand.boxOf('.traces')];
  expect(bar.y).toBeGreaterThanOrEqual(traces.y + traces.height - 1);
  await hand.element('.offers[aria-busy="false"]');
  const offered = await system.page.$$eval('.offers > .offer', (all) => all.map((one) => one.textContent));
  expect(offered[0]).toMatch(/sine/);
  await hand.takeOffer('periods', true);
  const said = await system.page.$eval('[data-kind="cycles"] .card-value', (value) => value.textContent);
  const value = Number(/[\d.]+/.exec(said ?? '')?.[0]);
  expect(Math.abs(value / (2 * Math.PI * Math.sqrt(0.5 / 14)) - 1)).toBeLessThan(0.01);
  // In its menu, every measure has its value before it is taken, or says why there is none.
  await system.page.click('.offers [data-offers="measure"]');
  const rows = await system.page.$$eval('.offer-menu.show [data-offer]', (all) =>
    all.map((one) => [one.getAttribute('data-offer'), one.querySelector('.offer-value')?.textContent ?? '']),
  );
  expect(rows.length).toBeGreaterThan(6);
  for (const [offer, text] of rows) expect([offer, text]).toEqual([offer, expect.stringMatching(/\d|–/)]);
  const periods = rows.find(([offer]) => offer === 'periods')?.[1];
  expect(Number(/[\d.]+/.exec(periods ?? '')?.[0]) / value).toBeCloseTo(1, 2);
  // Escape closes the menu and not the bar; taking one closes the bar, and the region keeps its handles.
  await system.page.keyboard.press('Escape');
  await system.page.waitForSelector('.offer-menu.show', { hidden: true });
  await hand.element('.offers');
  await hand.takeOffer('mean');
  await until(
    () => system.page.$eval('[data-testid="spoken-result"]', (spoken) => spoken.textContent ?? ''),
    (spoken) => /^mean of x: 0\.\d+ ± 0\.\d+ m$/.test(spoken),
    20,
  );
  await system.page.waitForSelector('.offers', { hidden: true });
  await hand.element('[aria-label="End of region A"][role="slider"]');
});

test('a card is one line with its whole value; it unfolds by a press, stays so for its kind, and all fold at once', async () => {
  const card = '[data-kind="statistics"]';
  const height = async () => (await hand.boxOf(card)).height;
  const line = await height();
  expect(line).toBeLessThan(64);
  expect(await cutValues(system.page)).toEqual([]);
  expect(await system.page.$eval(card, (one) => (one as HTMLElement).innerText)).not.toContain('median');
  await hand.unfoldCard(card);
  await hand.waitForText('median');
  expect(await height()).toBeGreaterThan(line * 2);
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  await hand.waitForText('median');
  await hand.pressLabelled('How the sheet is seen');
  await hand.item('Fold all entries');
  await system.page.waitForFunction(() => !document.body.innerText.includes('median'));
  // As a table, every result of the run is a number of its own.
  await hand.pressLabelled('How the sheet is seen');
  await hand.item('Table of results');
  await hand.element('.sheet-table [data-result="mean"]');
  await hand.pressLabelled('How the sheet is seen');
  await hand.item('All entries');
  await hand.element(card);
});

test('/ finds what can be worked out by a part of its name; what was used stands first', async () => {
  await system.page.keyboard.press('/');
  await hand.element('.choice-palette input:focus');
  await system.page.keyboard.type('deri');
  await system.page.keyboard.press('Enter');
  await hand.waitForText('over 9 readings');
  await system.page.keyboard.press('/');
  await hand.element('.choice-palette input:focus');
  const groups = () =>
    system.page.$$eval('.choice-group, .choice-title', (all) => all.map(({ textContent }) => textContent));
  expect((await groups()).slice(0, 2)).toEqual(['Used last', 'Derivative of x']);
  await system.page.keyboard.type('speed of light');
  const [found] = await groups();
  expect(found).toContain('299792458');
  await system.page.keyboard.press('Escape');
  await system.page.waitForSelector('.choice-palette', { hidden: true });
  await hand.pressLabelled('Undo');
});

test('a device is found by what it measures, with its code large', async () => {
  await hand.press('Connect');
  await hand.element('.choice-palette input:focus');
  await system.page.keyboard.type('force');
  await hand.element('.choice-mark');
  const [code, title] = await system.page.$$eval('.choice-mark, .choice-title', (all) =>
    all.map(({ textContent }) => textContent),
  );
  expect(title).toContain(code);
  const size = await system.page.$eval('.choice-mark', (mark) => parseFloat(getComputedStyle(mark).fontSize));
  expect(size).toBeGreaterThan(20);
  await system.page.keyboard.press('Escape');
  await system.page.waitForSelector('.choice-palette', { hidden: true });
});

test('the live trace is seen again at will, with the level of the plan to be dragged; recording puts it away', async () => {
  await hand.beginAt('x', 'rises through', '0.5');
  await system.page.keyboard.press('l');
  const level = '.live-view [role="slider"]';
  await until(
    () => system.page.$eval(level, (line) => Number(line.getAttribute('aria-valuenow'))),
    (value) => value === 0.5,
    20,
  );
  await atRest(system.page);
  const box = await hand.boxOf(level);
  await system.page.mouse.move(box.x + box.width / 3, box.y + box.height / 2);
  await system.page.mouse.down();
  await system.page.mouse.move(box.x + box.width / 3, box.y + box.height / 2 - 40, { steps: 4 });
  await system.page.mouse.up();
  await hand.waitForText(/rises through 0\.[5-9]/);
  expect(await words()).not.toContain('rises through 0.5 m');
  await hand.plan('Beginning', () => hand.choose('begin-pressed'));
  await hand.lengthOfRun('1');
  await hand.record();
  expect(await system.page.$('.live-view')).toBeNull();
});

test('a formula that is offered as a fit waits to be typed', async () => {
  await hand.pressLabelled('Region A');
  await hand.takeOffer('fit of a formula');
  await hand.element('[data-kind="formulaFit"] input[aria-label="Formula"]:focus');
  await hand.pressLabelled('Undo');
  await system.page.waitForSelector('[data-kind="formulaFit"]', { hidden: true });
});

test('? lists keys and gestures; Delete takes the newest run away, and Undo brings it back', async () => {
  await system.page.keyboard.press('?');
  await hand.waitForText('takes the newest run away');
  expect(await barriersOn(system.page)).toEqual([]);
  await hand.pressLabelled('Close');
  await system.page.waitForSelector('.modal', { hidden: true });
  const runs = () => system.page.$$eval('.chip', (all) => all.length);
  const before = await runs();
  await system.page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await system.page.keyboard.press('Delete');
  await hand.waitForText('is removed');
  await until(runs, (count) => count === before - 1);
  await hand.pressLabelled('Undo');
  await until(runs, (count) => count === before);
});

test('a device that another investigation uses is taken over after a question, and the answer can be no', async () => {
  const first = system.page.url();
  await system.page.goto(system.site, { waitUntil: 'load' });
  await hand.type('Name of the new investigation', 'Wants the same');
  await hand.waitForText('a first one takes three steps');
  await hand.press('Connect');
  await hand.item('K7-D');
  await hand.waitForText('“Never seen it” reads it now');
  await hand.press('Leave it there', '.modal');
  await system.page.waitForSelector('.modal', { hidden: true });
  expect(await system.page.$('[aria-label="Motion sensor K7-D"]')).toBeNull();
  await system.page.goto(first, { waitUntil: 'load' });
  await hand.element('[aria-label="Motion sensor K7-D"]');
});
