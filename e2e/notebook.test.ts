import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { type ElementHandle } from 'puppeteer-core';
import { atRest } from './support/atRest';
import { barriersOn } from './support/barriers';
import { type BenchHand } from './support/bench';
import { quote, stored, textsOf, toBench, toNotebook, wordsOf, write } from './support/notebook';
import { signedIn } from './support/signedIn';
import { type System, downloaded, until } from './support/system';

// What was found, told with its evidence: two springs, pinned, quoted, printed, saved.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const open = async (name = 'Channel buoy') => {
  await hand.openCopy(system.site, name);
  await hand.element('.groups[aria-busy="false"] .card-value .btn-number');
};
/** The value and ± of each run on the bench, in its order there, as numbers. */
const periods = async () => (await hand.named('the swing', 'period')).map(({ value }) => value);
const numberIn = (text: string) => Number(text.split('±')[0].replace('−', '-'));

test('an empty notebook offers the outline of a report, which holds what is known, with the sheet’s own numbers', async () => {
  await open();
  const [soft, again, stiff] = await periods();
  await toNotebook(hand);
  await hand.press('Outline of a lab report');
  await hand.element('.results-block td');
  const texts = (await textsOf(system.page)).join('\n');
  for (const part of ['Question', 'Apparatus', 'What we expect', 'Working out', 'Result', 'What we doubt'])
    expect(texts).toContain(part);
  // The sensor of the demo is K7-D, at 50 readings a second.
  expect(texts).toMatch(/How it was recorded: .*sensor [A-Z0-9]+-[A-Z]; 50 readings a second/);
  expect(texts).toContain('3 · stiff');
  const table = await wordsOf(system.page, '.results-block tbody tr td:nth-child(2)');
  expect(table.map(numberIn)).toEqual([soft, again, stiff].map((value) => Number(value.toPrecision(6))));
  const quoted = await wordsOf(system.page, '.quoted');
  expect(quoted).toContain(table[2]);
  expect(await barriersOn(system.page)).toEqual([]);
  // All of it is one step.
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press('z');
  await system.page.keyboard.up('Control');
  await hand.element('.first-blocks');
});

test('what is seen is pinned by a key; it stays as it was, says what has changed since, and leads back', async () => {
  await open();
  await system.page.keyboard.press('n');
  await hand.waitForText('What you see is pinned to the notebook.');
  await hand.press('Look at it');
  await hand.element('.pin-block .shapes svg');
  const before = await wordsOf(system.page, '.pin-block');
  const picture = await system.page.$eval('.shapes', (shapes) => shapes.innerHTML);
  expect(before[0]).toMatch(/pinned \d\d:\d\d/);
  expect(before[0]).toContain('period of the swing');
  expect(before[0]).not.toContain('The sheet has changed');
  const says = await system.page.$eval('.shapes', (shapes) => shapes.getAttribute('aria-label'));
  expect(says).toMatch(
    /^Graph of x \/ m, v .* against time from 0 to 8 s\. Fitted curves are drawn\. Runs: /,
  );
  // The axis that a person reads, in the picture itself.
  const ticks = await system.page.$$eval('.shapes text', (texts) =>
    texts.map(({ textContent }) => textContent),
  );
  expect(ticks).toEqual(expect.arrayContaining(['0', '2', '4', '6', '8', 't / s', 'x / m']));
  const [, , then] = await (await toBench(hand), periods());
  // The region is made shorter: every number changes.
  await hand.type('End of region A', '4');
  await until(async () => (await periods())[2] !== then, Boolean);
  const [, , now] = await periods();
  await toNotebook(hand);
  await hand.waitForText('The sheet has changed since: period of the swing was');
  expect(await system.page.$eval('.shapes', (shapes) => shapes.innerHTML)).toBe(picture);
  await hand.press('Then and now');
  const rows = await wordsOf(system.page, '.then-and-now tbody tr');
  const row = rows.find((words) => words.startsWith('stiff: period of the swing'));
  const [was, is] = [...String(row).matchAll(/(0\.\d+) ±/g)].map(([, digits]) => Number(digits));
  expect(was).toBe(Number(then.toFixed(String(was).length - 2)));
  expect(is).toBe(Number(now.toFixed(String(is).length - 2)));
});

test('who goes there finds the bench as it was: its interval, its runs', async () => {
  await open();
  await system.page.click('.chip:nth-of-type(2) button');
  await atRest(system.page);
  const shown = () => wordsOf(system.page, '.chip:not(.off)');
  await hand.type('Start of region A', '2');
  await system.page.keyboard.press('r');
  await atRest(system.page);
  const [runs, ticks] = [await shown(), await wordsOf(system.page, '.trace-area')];
  await system.page.keyboard.press('n');
  await hand.waitForText('What you see is pinned to the notebook.');
  await system.page.keyboard.press('f');
  await system.page.click('.chip:nth-of-type(2) button');
  await toNotebook(hand);
  await hand.press('Go there');
  await hand.element('.groups[aria-busy="false"]');
  await atRest(system.page);
  expect(await shown()).toEqual(runs);
  expect(await wordsOf(system.page, '.trace-area')).toEqual(ticks);
});

test('a block is pinned anew: it shows what is seen now, and what it showed before once that is taken back', async () => {
  await open();
  await system.page.keyboard.press('n');
  await hand.waitForText('What you see is pinned to the notebook.');
  await hand.type('End of region A', '4');
  await toNotebook(hand);
  await hand.waitForText('The sheet has changed since');
  const shapes = () => system.page.$eval('.pin-block .shapes', (picture) => picture.innerHTML);
  const picture = await shapes();
  await hand.press('Pin anew');
  await hand.element('.groups[aria-busy="false"]');
  await atRest(system.page);
  await hand.element(
    '::-p-xpath(//button[starts-with(normalize-space(), "Leave “") and contains(., "as it was")])',
  );
  await system.page.keyboard.press('n');
  await hand.waitForText('in the notebook shows what you see now.');
  await hand.press('Look at it');
  await hand.element('.pin-block .shapes svg');
  expect(await system.page.$$('.pin-block')).toHaveLength(1);
  expect(await shapes()).not.toBe(picture);
  expect(await wordsOf(system.page, '.pin-block')).not.toContainEqual(
    expect.stringContaining('has changed since'),
  );
  await toBench(hand);
  await hand.pressLabelled('Undo');
  await toNotebook(hand);
  await until(shapes, (now) => now === picture);
});

test('a sentence quotes a value of a run; it follows the sheet and a new name, and says when it is gone', async () => {
  await open();
  const [soft] = await periods();
  await toNotebook(hand);
  await write(hand, 'The soft spring took ');
  await quote(hand, 'period', 'Run 1');
  await system.page.keyboard.type(', as we thought.');
  await hand.waitForText('as we thought.');
  const [text] = await textsOf(system.page);
  expect(text).toMatch(/^The soft spring took 1\.\d+ ± 0\.\d+ s, as we thought\.$/);
  expect(numberIn(text.replace('The soft spring took ', ''))).toBe(Number(soft.toPrecision(6)));
  await stored(system.page);
  await toBench(hand);
  await hand.type('End of region A', '4');
  await until(async () => (await periods())[0] !== soft, Boolean);
  const [later] = await periods();
  await hand.menu('More for the swing', 'Rename');
  await hand.rename('the bobbing');
  await toNotebook(hand);
  const quoted = async () => (await wordsOf(system.page, '.quoted')).map(numberIn)[0];
  await until(quoted, (value) => Math.abs(value - later) < 1e-4);
  expect(await system.page.$eval('.quoted', (one) => (one as HTMLElement).title)).toContain('the bobbing');
  await toBench(hand);
  await hand.menu('More for the bobbing', 'Remove');
  await toNotebook(hand);
  await hand.waitForText('gone: its entry was removed from the workings');
  await toBench(hand);
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press('z');
  await system.page.keyboard.up('Control');
  await toNotebook(hand);
  await system.page.waitForFunction(() => document.querySelector('.quoted.value') !== null, {
    polling: 50,
    timeout: 40_000,
  });
});

test('letters, formulas, indices and lists are written with keys; steps are taken back one by one; blocks move and come back', async () => {
  await open();
  await toNotebook(hand);
  await write(hand, 'Length l');
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press(',');
  await system.page.keyboard.up('Control');
  await system.page.keyboard.type('0');
  await hand.press('Formula', '.text-tools');
  await hand.element('.formula-field');
  await system.page.keyboard.type('\\frac{m}{k}');
  await system.page.keyboard.press('Enter');
  await system.page.keyboard.type(' end');
  expect(await system.page.$eval('.rich-text', (text) => text.querySelector('sub')?.textContent)).toBe('0');
  expect(await system.page.$eval('.rich-text .katex-mathml mfrac', (one) => one.textContent)).toBe('mk');
  await write(hand, 'Second');
  await hand.pressLabelled('List');
  await system.page.keyboard.type(' one');
  await system.page.keyboard.press('Enter');
  await system.page.keyboard.type('two');
  expect(await wordsOf(system.page, '.rich-text li')).toEqual(['Second one', 'two']);
  const names = () => wordsOf(system.page, '.block-name');
  expect((await names())[0]).toMatch(/^Length l/);
  // The second is carried up by keys alone.
  await system.page.focus('.block-list li:nth-child(2) .btn-grip');
  for (const key of ['Space', 'ArrowUp', 'Space'] as const) {
    await system.page.keyboard.press(key);
    await system.pass(1.5);
  }
  await until(async () => (await names())[0].startsWith('Second one'), Boolean);
  await hand.pressLabelled('Undo');
  await until(async () => (await names())[0].startsWith('Length l'), Boolean);
  await hand.menu('What can be done with this block', 'Remove');
  await until(async () => (await names()).length === 1, Boolean);
  await hand.press('1 removed');
  await hand.item('Length l');
  await until(async () => (await names()).length === 2, Boolean);
  await stored(system.page);
  const texts = await textsOf(system.page);
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.rich-text');
  expect(await textsOf(system.page)).toEqual(texts);
  // The first menu after loading stands at its button.
  await hand.press('Save');
  const menu = await (await hand.element('.dropdown-menu.show')).boundingBox();
  const button = await (await hand.element('.dropdown-toggle.show')).boundingBox();
  if (menu === null || button === null) throw new Error('no menu');
  expect(Math.abs(menu.y - button.y - button.height)).toBeLessThan(12);
  expect(Math.abs(menu.x + menu.width - button.x - button.width)).toBeLessThan(2);
  await system.page.keyboard.press('Escape');
});

test('on a tablet the blocks lie over the sheet; what is added there is written in at once', async () => {
  await open();
  await toNotebook(hand);
  await system.page.setViewport({ width: 1024, height: 768 });
  try {
    await hand.pressLabelled('Blocks: show or fold away');
    await hand.press('Text', '.offcanvas .new-blocks');
    await system.page.waitForFunction(() => document.activeElement?.classList.contains('rich-text'), {
      polling: 50,
      timeout: 40_000,
    });
    await system.page.keyboard.type('by finger');
    expect(await textsOf(system.page)).toEqual(['by finger']);
    expect(await system.page.$('.offcanvas.show')).toBeNull();
    expect(await barriersOn(system.page)).toEqual([]);
  } finally {
    await system.page.setViewport({ width: 1280, height: 800 });
  }
});

test('a table of trials stands in the notebook as on its page, follows it, and stays as it was once it is frozen', async () => {
  await open('four snatches');
  await hand.press('Trials', 'nav');
  await hand.element('[data-entry="held"] .card-value .btn-number');
  const heads = await wordsOf(system.page, '.trial-grid thead th .column-title, .trial-grid thead th');
  const impulses = (await system.page.$eval('.trial-grid', (grid) => (grid as HTMLElement).innerText)).match(
    /\d\.\d+ ± \d\.\d+/g,
  );
  expect(heads.length).toBeGreaterThan(2);
  expect(impulses?.length).toBeGreaterThan(5);
  await toNotebook(hand);
  await hand.press('Table of trials', '.new-blocks');
  await hand.element('.results-block td');
  const words = () =>
    system.page.$$eval('.results-block tr', (rows) =>
      rows.map((row) => [...row.children].map(({ textContent }) => textContent).join(' | ')).join('\n'),
    );
  // A mass stands as it was typed.
  expect(await words()).toContain('string, light | 0.5 ± 0.001 | 0.39335 ± 0.00083');
  for (const impulse of impulses ?? []) expect(await words()).toContain(impulse);
  expect(await wordsOf(system.page, '.results-block tbody th')).toHaveLength(4);
  await hand.press('Freeze');
  const frozen = await words();
  await stored(system.page);
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.results-block td');
  expect(await words()).toBe(frozen);
  await hand.press('Follow');
  await hand.element('.results-block .form-select');
});

test('a photograph of the apparatus stands in the notebook with its words, and in the page that is saved; a drawing in disguise does not', async () => {
  await open();
  await toNotebook(hand);
  const [width, height] = [300, 200];
  const image = new PNG({ width, height });
  image.data.fill(255);
  const file = join(system.downloads, '..', 'apparatus.png');
  writeFileSync(file, PNG.sync.write(image));
  const disguised = join(system.downloads, '..', 'drawing.png');
  writeFileSync(disguised, '<svg xmlns="http://www.w3.org/2000/svg" onload="hurt()"/>');
  const field = await system.page.waitForSelector('input[aria-label="Photograph"]');
  await (field as ElementHandle<HTMLInputElement>).uploadFile(disguised);
  await hand.waitForText('This is a text with markup (SVG, HTML) and no photograph.');
  // The browser says of every refusal of a server that it has loaded something badly.
  expect(system.faults.splice(0).filter((fault) => !/status of 4\d\d/.test(fault))).toEqual([]);
  await (field as ElementHandle<HTMLInputElement>).uploadFile(file);
  const photograph = await hand.element('.photograph-block img');
  await until(
    () => photograph.evaluate((one) => (one as HTMLImageElement).naturalWidth),
    (wide) => wide === width,
  );
  await hand.type('Caption of the photograph', 'The buoy on its spring');
  await until(
    async () => (await wordsOf(system.page, '.block-name'))[0] === 'The buoy on its spring',
    Boolean,
  );
  expect(await barriersOn(system.page)).toEqual([]);
  await hand.press('Save');
  await hand.item('Save as one page (HTML)');
  const saved = await downloaded(system.downloads, '.html');
  const page = await system.newPage('/');
  await page.goto(`file://${saved}`);
  const shown = await page.$eval('figure img', (one) => ({
    words: one.alt,
    wide: one.naturalWidth,
    from: one.src.slice(0, 23),
  }));
  expect(shown).toEqual({ words: 'The buoy on its spring', wide: width, from: 'data:image/jpeg;base64,' });
  await page.close();
  rmSync(saved);
});

test('saved as one page it opens anywhere: no script, no outside address, the sheet’s numbers in real tables', async () => {
  await open();
  const all = await periods();
  await system.page.keyboard.press('n');
  await hand.waitForText('What you see is pinned to the notebook.');
  await toNotebook(hand);
  await hand.type('Title of the notebook', 'Which <spring> swings & faster?');
  await hand.type('Group', 'Terns');
  await write(hand, 'It took ');
  await quote(hand, 'period', 'Run 3');
  await hand.press('Table of results', '.new-blocks');
  await hand.element('.results-block td');
  await hand.press('Save');
  await hand.item('Save as one page (HTML)');
  const file = await downloaded(system.downloads, '.html');
  const html = readFileSync(file, 'utf8');
  expect(html).not.toMatch(/<script|javascript:|\son\w+=|<iframe|<object|<link|@import|url\((?!#)/i);
  expect([...html.matchAll(/https?:\/\/[^\s"'<]+/g)].map(([address]) => address)).toEqual(
    expect.arrayContaining([expect.stringMatching(/^http:\/\/www\.w3\.org\//)]),
  );
  expect(html.replaceAll(/http:\/\/www\.w3\.org\/[\w/]+/g, '')).not.toMatch(/https?:\/\//);
  const page = await system.newPage('/');
  await page.goto(`file://${file}`);
  expect(await page.$eval('h1', (one) => one.textContent)).toBe('Which <spring> swings & faster?');
  const tables = await page.$$eval('table', (some) =>
    some.map((table) => [...table.querySelectorAll('tbody tr')].map((row) => row.textContent)),
  );
  expect(tables).toHaveLength(2);
  const written = all.map((value) => value.toPrecision(6).slice(0, 6));
  written.forEach((digits, i) => {
    expect(tables[0].some((row) => row?.includes(digits))).toBe(true);
    expect(tables[1][i]).toContain(digits);
  });
  expect(await page.$eval('.text .value', (one) => one.textContent)).toContain(written[2]);
  expect(await page.$eval('figure svg', (one) => one.getBoundingClientRect().width)).toBeGreaterThan(400);
  expect(await page.$eval('[role=img]', (one) => one.getAttribute('aria-label'))).toContain('stiff');
  expect(await barriersOn(page)).toEqual([]);
  await page.close();
  rmSync(file);
  // Printed, nothing but the sheet is there, and its head stands on every page.
  await system.page.bringToFront();
  await system.page.emulateMediaType('print');
  const seen = await system.page.evaluate(() => ({
    words: document.body.innerText,
    head: getComputedStyle(document.querySelector('.notebook-heading') as Element).display,
  }));
  await system.page.emulateMediaType();
  expect(seen.words).toContain('Terns');
  expect(seen.words).not.toMatch(/Undo|Bench|Go there|Table of results|Freeze/);
  expect(seen.head).toBe('table-header-group');
});
