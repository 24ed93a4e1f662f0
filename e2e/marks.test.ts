import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { type ElementHandle } from 'puppeteer-core';
import { barriersOn } from './support/barriers';
import { type BenchHand } from './support/bench';
import { stored, toNotebook, wordsOf } from './support/notebook';
import { signedIn } from './support/signedIn';
import { type System, downloaded, until } from './support/system';

// Marks on a photograph: an arrow, words, and a length by a scale that was laid on it.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

/** Pulls with the mouse from one place of the photograph to another, in shares of it. */
async function pull(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const { x, y, width, height } = await system.page.$eval('.marked', (element) => {
    element.scrollIntoView({ block: 'center' });
    const box = element.getBoundingClientRect();
    return { x: box.x, y: box.y, width: box.width, height: box.height };
  });
  const { mouse } = system.page;
  await mouse.move(x + from[0] * width, y + from[1] * height);
  await mouse.down();
  await mouse.move(x + to[0] * width, y + to[1] * height, { steps: 5 });
  await mouse.up();
}

const choose = (tool: string) => hand.press(tool, '.marking-tools');
/** The focus is on an end of a mark. */
const takeHold = (mark: string) =>
  system.page.$eval(`.mark-end[aria-label^="${mark}"]`, (end) => (end as SVGElement).focus());
/** What stands on the picture. */
const onPicture = () =>
  system.page.$$eval('.marks text', (texts) => [...new Set(texts.map(({ textContent }) => textContent))]);

test('a scale is laid, a length follows from it; words and arrows stand on the picture and go with it', async () => {
  await hand.openCopy(system.site, 'Channel buoy');
  await toNotebook(hand);
  const image = new PNG({ width: 600, height: 300 });
  image.data.fill(200);
  const file = join(system.downloads, '..', 'rail.png');
  writeFileSync(file, PNG.sync.write(image));
  const field = await system.page.waitForSelector('input[aria-label="Photograph"]');
  await (field as ElementHandle<HTMLInputElement>).uploadFile(file);
  await hand.press('Mark it', '.photograph-block');
  await choose('Length');
  // A line of 90 by 120 pixels is 150 long (3, 4, 5).
  await pull([0.2, 0.1], [0.35, 0.5]);
  await hand.waitForText('Lay a scale and say how long it is.');
  await choose('Scale');
  // Half of the width, 300 pixels, is 0.30 m: so the other line is 0.15 m.
  await pull([0.1, 0.9], [0.6, 0.9]);
  await hand.type('How long the scale is', '30 cm');
  const length = async () => (await wordsOf(system.page, '.mark-list .number'))[0];
  const said = await until(length, (words) => words.includes('±'));
  const [value, u] = (said.match(/[\d.]+/g) ?? []).map(Number);
  expect(said).toMatch(/ cm$/);
  expect(Math.abs(value - 15)).toBeLessThan(2 * u);
  expect(u).toBeLessThan(0.3);
  await choose('Words');
  await pull([0.5, 0.3], [0.5, 0.3]);
  await hand.type('What stands there', 'light gate');
  await choose('Arrow');
  await pull([0.5, 0.35], [0.4, 0.6]);
  expect(await onPicture()).toEqual(expect.arrayContaining(['light gate', '30 cm', said]));
  const ends = () => system.page.$$eval('.mark-end', (all) => all.length);
  expect(await ends()).toBe(7);
  expect(await barriersOn(system.page)).toEqual([]);

  // An end is moved by a key, and back by a step back.
  await takeHold('Length');
  const before = await length();
  for (let i = 0; i < 5; i++) await system.page.keyboard.press('ArrowLeft');
  await until(length, (words) => words !== before);
  await hand.press('Done', '.marking-tools');
  await system.page.click('h1');
  await stored(system.page);
  const seen = await onPicture();
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.photograph-block .marks text');
  expect(await onPicture()).toEqual(seen);
  const alt = await system.page.$eval('.photograph-block img', (one) => one.alt);
  expect(alt).toMatch(/^Photograph without a caption\. Marked on it: .*light gate/);

  await hand.press('Save');
  await hand.item('Save as one page (HTML)');
  const saved = await downloaded(system.downloads, '.html');
  const page = await system.newPage('/');
  await page.goto(`file://${saved}`);
  expect(await page.$$eval('.marks text', (texts) => texts.map(({ textContent }) => textContent))).toEqual(
    expect.arrayContaining(seen),
  );
  // The marks lie where the picture lies.
  const boxes = await page.$$eval('.marked img, .marks svg', (all) =>
    all.map((one) => {
      const { x, y, width, height } = one.getBoundingClientRect();
      return [x, y, width, height].map(Math.round);
    }),
  );
  expect(boxes[1]).toEqual(boxes[0]);
  await page.close();
  rmSync(saved);
});

test('a mark that is removed comes back by a step back', async () => {
  await hand.press('Mark it', '.photograph-block');
  const marks = () => wordsOf(system.page, '.mark-list li');
  const before = await marks();
  await takeHold('Arrow');
  await system.page.keyboard.press('Delete');
  await until(marks, (now) => now.length === before.length - 1);
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press('z');
  await system.page.keyboard.up('Control');
  await until(marks, (now) => now.length === before.length);
  expect(await marks()).toEqual(before);
});
