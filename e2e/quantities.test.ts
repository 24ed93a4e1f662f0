import { readFileSync, rmSync } from 'node:fs';
import { type Lab, openLab } from './support/lab';
import { atRest } from './support/atRest';
import { downloaded, until } from './support/system';

// Several quantities in one trace, and how their readings are drawn: seen in pixels, in the picture that is saved, and after a reload.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];

beforeAll(async () => {
  lab = await openLab('buoy');
  ({ system, hand } = lab);
  await hand.openCopy(system.site, 'Channel buoy');
  await hand.element('.card-value .btn-number');
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

/** A trace as it is saved, as shapes; it is known by the symbols on its left axis. */
async function shapesOf(symbol: string): Promise<string> {
  await hand.menu(`Set up the trace of ${symbol}`, 'Make a picture of it');
  await hand.element('.picture-preview img');
  await hand.press('Save as shapes (SVG)');
  const path = await downloaded(system.downloads, '.svg');
  const text = readFileSync(path, 'utf8');
  rmSync(path);
  await system.page.keyboard.press('Escape');
  await system.page.waitForSelector('.modal.show', { hidden: true });
  return text;
}
const [teal, plum] = ['#0b6e69', '#8a3fa0'];

test('two quantities in a trace have colours of their own and a legend in words; dragged, it stays where it was put', async () => {
  expect(await shapesOf('x')).not.toContain(plum);
  await hand.menu('Set up the trace of x', 'v');
  await system.page.keyboard.press('Escape');
  const legend = await hand.element('.legend');
  expect((await legend.evaluate((element) => (element as HTMLElement).innerText)).split('\n')).toEqual([
    'x position',
    'v velocity',
  ]);
  await atRest(system.page);
  const [before, trace] = [await hand.boxOf('.legend'), await hand.boxOf('.trace')];
  // Whole inside of its trace.
  expect(before.x).toBeGreaterThan(trace.x);
  expect(before.x + before.width).toBeLessThan(trace.x + trace.width);
  const picture = await shapesOf('x');
  for (const word of ['x position', 'v velocity']) expect(picture).toContain(`>${word}</text>`);
  for (const colour of [teal, plum]) expect(picture.toLowerCase()).toContain(colour);

  await system.page.mouse.move(before.x + 10, before.y + 8);
  await system.page.mouse.down();
  await system.page.mouse.move(before.x - 190, before.y + 38, { steps: 4 });
  await system.page.mouse.up();
  await atRest(system.page);
  const after = await hand.boxOf('.legend');
  expect(Math.abs(after.x - (before.x - 200))).toBeLessThan(3);
  await legend.focus();
  await system.page.keyboard.press('ArrowLeft');
  await until(
    () => hand.boxOf('.legend'),
    ({ x }) => Math.abs(x - (after.x - 12)) < 2,
  );
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.legend');
  await atRest(system.page);
  expect(Math.abs((await hand.boxOf('.legend')).x - (after.x - 12))).toBeLessThan(3);
});

test('readings are drawn as points, as a line, or both, and the picture that is saved shows the same', async () => {
  const marks = (picture: string) => (picture.match(/<(circle|path|ellipse|rect)\b/g) ?? []).length;
  const counts: Record<string, number> = {};
  for (const look of ['A line', 'Points', 'A line with points']) {
    await hand.menu('Set up the trace of v', look);
    await atRest(system.page);
    counts[look] = marks(await shapesOf('v'));
  }
  // Three runs of four hundred readings.
  expect(counts['A line']).toBeLessThan(200);
  expect(counts.Points).toBeGreaterThan(counts['A line'] + 800);
  expect(counts['A line with points']).toBeGreaterThan(counts['A line'] + 800);
});
