import { readFileSync, rmSync } from 'node:fs';
import { addColumn, askOfRuns, paste } from './support/trials';
import { signedIn } from './support/signedIn';
import { barriersOn } from './support/barriers';
import { type BenchHand } from './support/bench';
import { type System, downloaded, until } from './support/system';

// What a table of trials draws, of rows that were typed without any run: the truth is in the rows.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const said = () => system.page.$eval('.trial-chart canvas', (canvas) => canvas.getAttribute('aria-label'));
const heads = () =>
  system.page.$$eval('.trial-grid thead .column-title', (all) =>
    all.map((one) => (one as HTMLElement).innerText.trim()),
  );

/** y = 2 x of soft ones, 3 x of stiff ones, to within a hundredth. */
const rows = [
  ['Gulls', 'soft', 1, 2.01],
  ['Terns', 'soft', 2, 3.99],
  ['Puffins', 'soft', 3, 6],
  ['Skuas', 'stiff', 1, 3.01],
  ['Auks', 'stiff', 2, 5.99],
  ['Knots', 'stiff', 3, 9],
] as const;

test('rows of no run are typed, and drawn as bars', async () => {
  await system.open('/');
  await hand.type('Name of the new investigation', 'Typed rows');
  await hand.waitForText('No run yet');
  await askOfRuns(hand, 'spring', '');
  await askOfRuns(hand, 'x', 'm');
  await askOfRuns(hand, 'y', 'N');
  await hand.press('Trials', 'nav[aria-label="Pages"]');
  await hand.press('Empty table');
  for (const name of ['spring', 'x', 'y']) await addColumn(hand, name);
  await paste(
    system.page,
    ['whose\tspring\tx\ty\tu(y)', ...rows.map((row) => [...row, 0.01].join('\t'))].join('\n'),
  );
  await hand.waitForText('6 rows were pasted.');
  await hand.press('Bars');
  await hand.pick('What is drawn', 'y');
  await hand.pick('What stands under each', 'spring');
  await until(said, (words) => /soft: 4\b.*stiff: 6\b/.test(words ?? ''), 10);
});

test('points are drawn and fitted apart, named, and the one that is pressed is a row', async () => {
  await hand.press('Points');
  await hand.press('Relation …');
  await hand.element('.modal.show input:focus');
  await system.page.keyboard.type('line');
  await hand.element('.modal.show canvas');
  await system.page.keyboard.press('Enter');
  await hand.result('line through y against x', 'slope');
  await hand.pick('What points are drawn and fitted apart by', 'spring');
  await hand.press('stiff', '.group-legend');
  const slopes = await until(
    () => hand.results('line through y against x', 'slope'),
    (all) => all.length === 2,
    10,
  );
  expect(slopes.map((slope) => Math.round(slope))).toEqual([2, 3]);
  await hand.pick('What stands beside each point', 'spring');
  await until(
    () => system.page.$$eval('.point-name.name', (all) => all.map((one) => one.textContent)),
    (names) => names.join() === 'soft,soft,soft,stiff,stiff,stiff',
    10,
  );
  // The third of the soft ones is pressed while the stiff ones stand in front.
  const [, , third] = await system.page.$$('.point-name.name');
  const box = await third.boundingBox();
  if (box === null) throw new Error('the name has no place');
  await system.page.mouse.click(box.x + box.width / 2, box.y + box.height / 2 + 14);
  await until(
    () =>
      system.page.$$eval('.trial-grid tr.marked', (all) =>
        all.map((row) => row.querySelector('input')?.value),
      ),
    (names) => names.join() === 'Puffins',
    10,
  );
  await hand.element('.point-name.mark');
  expect(await system.page.$eval('.point-name.mark', ({ textContent }) => textContent)).toBe('Puffins');
  expect(await system.page.$eval('.group-name.chosen', ({ textContent }) => textContent.trim())).toBe('soft');
  // And a row that is gone into marks its point.
  await (await hand.element('input[aria-label="Name of the typed row Auks"]')).click();
  await until(
    () => system.page.$eval('.point-name.mark', ({ textContent }) => textContent),
    (name) => name === 'Auks',
    10,
  );
  expect(await barriersOn(system.page)).toEqual([]);
});

test('a picture of it has the names and the groups, and not what is marked', async () => {
  await hand.menu('Set up the trace of y', 'Make a picture of it');
  await hand.element('.picture-preview img');
  await hand.press('Save as shapes (SVG)');
  const text = readFileSync(await downloaded(system.downloads, '.svg'), 'utf8');
  // Once for each point, and once in the head.
  expect(text.match(/>soft</g)).toHaveLength(4);
  expect(text.match(/>stiff</g)).toHaveLength(4);
  expect(text).not.toContain('Auks');
  for (const tick of ['2', '4', '6', '8']) expect(text).toContain(`>${tick}<`);
  await system.page.keyboard.press('Escape');
});

test('axes are logarithmic: a power is a line on them, what is not above zero is said, and the picture has their ticks', async () => {
  const { page } = system;
  const axes = async (item: string) => {
    await hand.press('y against x');
    await hand.item(item);
  };
  await paste(
    system.page,
    'whose\tspring\tx\ty\nTerns\tsoft\t100\t200\nAuks\tsoft\t10\t20\nGulls\tsoft\t-1\t-2',
  );
  await hand.waitForText('3 rows were pasted.');
  await axes('Logarithmic upright');
  await axes('Logarithmic along');
  await hand.waitForText('One value of y not above 0: not on a logarithmic axis');
  await hand.waitForText('One value of x not above 0: not on a logarithmic axis');
  // Tenfold is as far everywhere: the names of y = 2 x at x = 1, 10 and 100 lie on one straight line, evenly.
  const places = await until(
    () =>
      page.$$eval('.point-name.name', (all) =>
        all
          .filter((one) => one.textContent === 'soft')
          .map((one) => {
            const { left, top, width } = one.getBoundingClientRect();
            return { x: left + width / 2, y: top };
          })
          .sort((a, b) => a.x - b.x),
      ),
    (all) => all.length === 5,
    10,
  );
  const [one, , , ten, hundred] = places;
  expect(Math.abs(hundred.x - ten.x - (ten.x - one.x))).toBeLessThan(2);
  expect(Math.abs(one.y - ten.y - (ten.y - hundred.y))).toBeLessThan(2);
  // A wheel zooms by ratios there: out to both sides alike, and never to zero or below.
  const before = await hand.viewport();
  const plot = await (await hand.element('[data-testid="overlay"]')).boundingBox();
  if (plot === null) throw new Error('the plot has no place');
  await page.mouse.move(plot.x + plot.width / 2, plot.y + plot.height / 2);
  for (let turn = 0; turn < 12; turn++) await page.mouse.wheel({ deltaY: 100 });
  const after = await until(
    () => hand.viewport(),
    ({ to }) => to > 1e4 * before.to,
    10,
  );
  expect(after.from).toBeGreaterThan(0);
  expect((Math.log(before.from / after.from) / Math.log(after.to / before.to)).toFixed(1)).toBe('1.0');
  await hand.element('.axis-grip.bottom').then((axis) => axis.focus());
  await page.keyboard.press('Home');
  await until(
    () => hand.viewport(),
    ({ to }) => to === before.to,
    10,
  );
  await hand.menu('Set up the trace of y', 'Make a picture of it');
  await hand.element('.picture-preview img');
  rmSync(await downloaded(system.downloads, '.svg'));
  await hand.press('Save as shapes (SVG)');
  const picture = readFileSync(await downloaded(system.downloads, '.svg'), 'utf8');
  const texts = [...picture.matchAll(/>([^<>]+)<\/text>/g)].map(([, text]) => text);
  expect(texts).toEqual(expect.arrayContaining(['1', '10', '100', '200']));
  // A linear axis would have these numbers.
  for (const tick of ['0', '40', '80', '150']) expect(texts).not.toContain(tick);
  await page.keyboard.press('Escape');
  await page.waitForSelector('.modal.show', { hidden: true });
  for (const named of ['make an axis logarithmic', 'make an axis logarithmic', 'add a row'])
    await hand.element(`button[aria-label="Undo"][title*="${named}"]`).then((button) => button.click());
  await hand.waitForText('6 rows');
});

test('columns are dragged into another order, in one step', async () => {
  expect(await heads()).toEqual(['spring', 'x / m', 'y / N']);
  const boxOf = async (title: string) => {
    const head = await hand.element(`.trial-grid thead ::-p-xpath(.//button[normalize-space()="${title}"])`);
    const box = await head.boundingBox();
    if (box === null) throw new Error(`${title} has no place`);
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const [from, to] = [await boxOf('y / N'), await boxOf('spring')];
  await system.page.mouse.move(from.x, from.y);
  await system.page.mouse.down();
  await system.page.mouse.move(from.x - 20, from.y, { steps: 4 });
  await system.page.mouse.move(to.x, to.y, { steps: 8 });
  await system.page.mouse.up();
  await until(heads, (titles) => titles.join() === 'y / N,spring,x / m', 10);
  expect(await system.page.$('.dropdown-menu.show')).toBeNull();
  await hand.pressLabelled('Undo');
  await until(heads, (titles) => titles.join() === 'spring,x / m,y / N', 10);
});

test('a spread is a box or a histogram, too', async () => {
  await hand.press('Spread');
  await hand.pick('What is drawn', 'y');
  await hand.pick('What stands behind the values', 'box');
  // Of three values by hand: half-way from the middle one to each of the others.
  await until(
    said,
    (words) =>
      /soft: median 3\.99.*quartiles 3\.0.* and 4\.995.*stiff: median 5\.99.*quartiles 4\.5.* and 7\.495/.test(
        words ?? '',
      ),
    10,
  );
  await hand.pick('What stands behind the values', 'histogram');
  await until(
    said,
    (words) => {
      const counts = [...(words ?? '').matchAll(/(\d+) from/g)].map(([, count]) => Number(count));
      return counts.length > 1 && counts.reduce((sum, count) => sum + count, 0) === 6;
    },
    10,
  );
});
