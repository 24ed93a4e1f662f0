import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { addColumn, askOfRuns, paste } from './support/trials';
import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { barriersOn } from './support/barriers';
import { type BenchHand } from './support/bench';
import { type System, downloaded, until } from './support/system';

// Many runs become one conclusion, through the real interface. The runs are straight lines whose slopes are 2.5 times what is typed
// of each, so that the truth is known.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const factor = 2.5;
const distances = [0.1, 0.2, 0.3];

/** A run whose slope is known, with a ripple that is too fast to bend it. */
const runOf = (slope: number): string =>
  `t (s),x (m)\n${Array.from({ length: 300 }, (_, i) => {
    const t = i * 0.01;
    return `${t.toFixed(2)},${(slope * t + 0.001 * Math.sin(71 * t)).toFixed(6)}`;
  }).join('\n')}\n`;

const link = (title: string) => hand.press(title, 'nav[aria-label="Pages"]');
const keys = async (...all: string[]) => {
  for (const key of all) await system.page.keyboard.press(key as 'Enter');
};
const cells = (): Promise<string[][]> =>
  system.page.$$eval('.trial-grid tbody tr:not([aria-hidden])', (rows) =>
    rows.map((row) =>
      [...row.querySelectorAll('td')].map(
        (cell) => cell.querySelector('input')?.value ?? cell.innerText.trim(),
      ),
    ),
  );
const column = async (place: number) => (await cells()).map((row) => row[place]);
const lineThrough = (name: string) => hand.result(`line through ${name} against d`, 'slope');
const stored = () =>
  system.page.evaluate(async () => {
    const id = /investigations\/([\w-]+)/.exec(location.pathname)?.[1] ?? '';
    return (await (await fetch(`/api/investigations/${id}/trials`)).json()) as {
      trials: { tables: { typed: { name: string }[]; leftOut: { why: string }[] }[] };
    };
  });

test('runs become rows, conditions are typed in the table, and the line through them is the known one', async () => {
  await system.open('/');
  await hand.type('Name of the new investigation', 'Slopes and distances');
  await hand.waitForText('No run yet');
  for (const [i, distance] of distances.entries())
    await hand.bring(join(system.downloads, '..', `run${i}.csv`), runOf(factor * distance), `run${i}`);
  await hand.mark(0.5, 2.5);
  await hand.takeOffer('line', true);
  await hand.waitForText(/slope\s+\d/);
  // What is offered on the region lies over the conditions.
  await keys('Escape');
  await askOfRuns(hand, 'd', 'm');
  await hand.saved();
  await link('Trials');
  await hand.waitForText('No table yet');
  await hand.waitForText(/of every run/);
  await (await hand.element('.first-tables button')).click();
  await hand.element('.trial-grid tbody td');
  await addColumn(hand, 'd');
  // Typed with keys alone, down the column.
  await (await hand.element('input[aria-label="d of run0"]')).click();
  for (const distance of distances) {
    await system.page.keyboard.type(String(distance));
    await keys('Enter');
    await atRest(system.page);
  }
  await until(
    async () => (await column(1)).join(),
    (shown) => shown === distances.join(),
    10,
  );
  const slopes = (await column(0)).map(parseFloat);
  slopes.forEach((slope, i) => expect(slope / (factor * distances[i])).toBeCloseTo(1, 2));
  await hand.press('Points');
  await hand.press('Relation …');
  await hand.element('.modal.show input:focus');
  await system.page.keyboard.type('line');
  await hand.element('.modal.show canvas');
  await keys('Enter');
  const { value } = await lineThrough('slope');
  expect(value).toBeCloseTo(factor, 1);
});

test('a row of another group counts, one that is left out does not, and each step is taken back', async () => {
  const before = await lineThrough('slope');
  await hand.press('Row');
  await hand.waitForText('4 rows');
  await hand.type('Name of the typed row ', 'Puffins');
  await hand.type('d of Puffins', '0.4');
  // Ten times as far off as it is uncertain.
  await hand.type('slope of Puffins', '1.1 ± 0.01');
  await until(
    () => lineThrough('slope'),
    ({ value }) => value !== before.value,
    10,
  );
  const pulled = await lineThrough('slope');
  expect(pulled.value).toBeGreaterThan(before.value);
  await hand.pressLabelled('What to do with Puffins');
  await hand.type('Why Puffins is left out', 'scale not zeroed');
  await hand.waitForText('4 rows, 1 left out');
  await hand.waitForText('scale not zeroed');
  await until(
    () => lineThrough('slope'),
    ({ value }) => Math.abs(value - before.value) < 1e-9,
    10,
  );
  await hand.pressLabelled('Undo');
  await until(
    () => lineThrough('slope'),
    ({ value }) => Math.abs(value - pulled.value) < 1e-9,
    10,
  );
  await hand.pressLabelled('Redo');
  await hand.waitForText('4 rows, 1 left out');
  await hand.saved();
  const { trials } = await stored();
  expect(trials.tables[0].typed.map(({ name }) => name)).toEqual(['Puffins']);
  expect(trials.tables[0].leftOut.map(({ why }) => why)).toEqual(['scale not zeroed']);
});

test('the menu of a row lies over the rows below it, opens by keys and gives them back', async () => {
  const { page } = system;
  const toggle = '.trial-grid tbody tr:nth-child(1) .row-menu';
  await page.focus(toggle);
  await page.keyboard.press('ArrowDown');
  await page.waitForSelector('.trial-grid .dropdown-menu.show');
  const covered = () =>
    page.$$eval('.trial-grid .dropdown-menu.show :is(button, input)', (parts) =>
      parts.flatMap((part) => {
        const { left, right, top, height } = part.getBoundingClientRect();
        const isCovered = [left + 3, right - 3].some(
          (x) => document.elementFromPoint(x, top + height / 2)?.closest('.dropdown-menu') == null,
        );
        return isCovered ? [part.textContent || part.getAttribute('aria-label')] : [];
      }),
    );
  await until(covered, (parts) => parts.length === 0, 5);
  await page.keyboard.press('ArrowDown');
  expect(await page.$eval(':focus', (focused) => focused.textContent)).toBe('Show on the bench');
  await page.keyboard.press('Escape');
  await page.waitForSelector('.trial-grid .dropdown-menu.show', { hidden: true });
  expect(await page.$eval(toggle, (button) => button === document.activeElement)).toBe(true);
  await page.click(toggle);
  await page.waitForSelector('.trial-grid .dropdown-menu.show');
  expect(await covered()).toEqual([]);
  await page.keyboard.press('Escape');
});

test('a formula over columns has its unit; what is pasted from a spreadsheet is rows', async () => {
  await addColumn(hand, 'k = slope/d');
  await until(
    async () => (await column(2)).length,
    (count) => count === 4,
    10,
  );
  const ratios = (await column(2)).map(parseFloat);
  ratios.slice(0, 3).forEach((ratio) => expect(ratio).toBeCloseTo(factor, 1));
  expect(await system.page.$eval('.trial-grid thead', (head) => (head as HTMLElement).innerText)).toMatch(
    /k \/ s⁻?/,
  );
  await paste(system.page, 'whose\td / cm\tslope\tu(slope)\nTerns\t50\t1.25\t0.02\nGulls\t60\t1,5\t0.02\n');
  await hand.waitForText('2 rows were pasted.');
  expect((await cells()).slice(4).map(([slope, d]) => [slope, d])).toEqual([
    ['1.25 ± 0.02', '0.5'],
    ['1.5 ± 0.02', '0.6'],
  ]);
  await hand.waitForText('6 rows, 1 left out');
});

test('a column in another unit is typed and seen in that one, and means the same on the bench', async () => {
  await hand.press('d / m', '.trial-grid thead');
  await hand.type('Unit of the column d', 'cm');
  await until(
    async () => (await column(1)).join(),
    (shown) => shown === '10,20,30,40,50,60',
    10,
  );
  expect(await system.page.$('.dropdown-menu.show')).toBeNull();
  await hand.waitForText('1 value was set aside.');
  const slope = await lineThrough('slope');
  expect(slope.value).toBeCloseTo(factor / 100, 3);
  await hand.type('d of run2', '35');
  await hand.waitForText('35');
  await link('Bench');
  await hand.element('input[aria-label="d of run 3"]');
  expect(
    await system.page.$eval('input[aria-label="d of run 3"]', (field) => (field as HTMLInputElement).value),
  ).toBe('0.35');
  await link('Trials');
  await hand.type('d of run2', '0.3 m');
  await until(
    async () => (await column(1))[2],
    (shown) => shown === '30',
    10,
  );
  await hand.press('d / cm', '.trial-grid thead');
  await hand.type('Unit of the column d', 'm');
  await until(
    async () => (await column(1)).join(),
    (shown) => shown === distances.concat([0.4, 0.5, 0.6]).join(),
    10,
  );
});

test('a region over the values of a column, and a picture of the points with their ticks', async () => {
  await hand.mark(0.15, 0.35);
  await hand.takeOffer('mean', true);
  const { value } = await hand.result('mean of slope', 'mean');
  // Two runs lie in it, whose slopes are 0.5 and 0.75.
  expect(value).toBeCloseTo(0.625, 2);
  await keys('Escape');
  await hand.menu('Set up the trace of slope', 'Make a picture of it');
  await hand.element('.picture-preview img');
  await hand.press('Save as shapes (SVG)');
  const text = readFileSync(await downloaded(system.downloads, '.svg'), 'utf8');
  for (const tick of ['0.2', '0.4', '0.6']) expect(text).toContain(`>${tick}<`);
  expect(text).toMatch(/slope/);
  await keys('Escape');
  for (let i = 0; i < 2; i++) await hand.pressLabelled('Undo');
});

test('bars and spread are drawn of what counts, and say it to who does not see them', async () => {
  const said = () => system.page.$eval('.trial-chart canvas', (canvas) => canvas.getAttribute('aria-label'));
  await hand.press('Bars');
  await hand.pick('What is drawn', 'k');
  await until(said, (words) => words?.startsWith('Bars of k') === true, 10);
  expect(await said()).toMatch(/1: 2\.5/);
  expect(await said()).not.toContain('Puffins');
  await hand.press('Spread');
  await until(said, (words) => words?.startsWith('Spread of k / (s⁻¹). k: 5 values, mean 2.5') === true, 10);
  await hand.press('Points');
  expect(await barriersOn(system.page)).toEqual([]);
});

test('a new run appears as it ends; after a reload all stands as it was left', async () => {
  await hand.saved();
  const before = await cells();
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.trial-grid tbody td');
  await until(cells, (now) => JSON.stringify(now) === JSON.stringify(before), 20);
  expect((await lineThrough('slope')).value).toBeCloseTo(factor, 1);
  await link('Bench');
  await hand.waitForText('No sensor yet');
  await hand.bring(join(system.downloads, '..', 'run9.csv'), runOf(factor * 0.7), 'run9');
  await link('Trials');
  await hand.waitForText('7 rows, 1 left out');
  await until(
    async () => (await column(0))[3],
    (slope) => Math.abs(parseFloat(slope) - 1.75) < 0.02,
    20,
  );
});

test('a result of the trials becomes a constant of the bench, as it is now', async () => {
  await hand.press('Keep as a constant');
  await hand.item('slope');
  await hand.waitForText('stands on the bench as a constant');
  await link('Bench');
  await hand.element('[data-kind="constant"]');
  const words = await system.page.$eval('[data-kind="constant"]', (card) => (card as HTMLElement).innerText);
  expect(words.replace(/\s+/g, ' ')).toMatch(/slope.*2\.\d/);
});

test('an entry of the workings that was removed is said in its column, and nothing else goes', async () => {
  await hand.menu('More for line through x', 'Remove');
  await link('Trials');
  await hand.waitForText('7 rows');
  const title = await system.page.$eval('.trial-grid thead th:nth-child(2)', (head) =>
    head.getAttribute('title'),
  );
  expect(title).toBe('This entry was removed from the workings. Remove the column, or undo.');
});
