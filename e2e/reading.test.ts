import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { arrayOf, normalRandom, readTable } from '@heuristor/core';
import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { barriersOn } from './support/barriers';
import { type BenchHand } from './support/bench';
import { type System, downloaded } from './support/system';

// A graph that is read: spectrum, histogram, labels, numbers, large digits, pictures, with runs whose truth is known.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const [frequency, amplitude, sigma] = [2.3, 0.05, 0.001];
const count = 400;
const interval = 0.02;
const stray = 150;

const waveOf = (seed: number, phase: number) => {
  const random = normalRandom(seed);
  return Array.from({ length: count }, (_, i) => {
    const swing = amplitude * Math.sin(2 * Math.PI * frequency * interval * i + phase);
    return Number((0.8 + swing + sigma * random() + (i === stray ? 0.03 : 0)).toFixed(6));
  });
};
const waves = [waveOf(1, 0.3), waveOf(2, 1.4)];

const bring = (name: string, values: number[]) => {
  const rows = values.map((x, i) => `${(i * interval).toFixed(2)},${x}`);
  const text = `t (s),x (m)\n${rows.join('\n')}\n`;
  return hand.bring(join(system.downloads, '..', `${name}.csv`), text, name);
};
const key = async (name: string, times = 1) => {
  for (let i = 0; i < times; i++) await system.page.keyboard.press(name as 'ArrowUp');
  await atRest(system.page);
};
const sheet = () =>
  system.page.evaluate(async () => {
    const id = location.pathname.split('/').pop();
    const answer = await fetch(`/api/investigations/${id}`);
    return ((await answer.json()) as { workings: Sheet }).workings;
  });
/** The ends of an axis, as it says them itself. */
const ends = async (name: string): Promise<number[]> => {
  const said = await system.page.$eval(
    `[aria-label^="Axis of ${name}:"]`,
    (axis) => axis.getAttribute('aria-label') ?? '',
  );
  return (said.replaceAll('−', '-').match(/-?[\d.]+(?= to)|-?[\d.]+$/g) ?? []).map(Number);
};
interface Sheet {
  aside: { channel: string; ranges: [number, number][] }[];
  pages: { labels: { text: string; offset: { x: number; y: number } }[] }[];
}
const textOf = (selector: string) =>
  system.page.$eval(selector, (element) => (element as HTMLElement).innerText);

test('two runs of a known swing come in; the spectrum of a region reads its frequency and amplitude, each with its uncertainty', async () => {
  await hand.begin(system.site, 'Known swing', []);
  await bring('first', waves[0]);
  await bring('second', waves[1]);
  await hand.mark(0.6, 7.4);
  await hand.offer('x', 'spectrum');
  await hand.element('[data-graph]');
  for (const found of await hand.allResults('spectrum of x', 'frequency')) {
    expect(Math.abs(found.value - frequency)).toBeLessThan(4 * found.uncertainty);
    // Rife and Boorstyn’s bound for a plain window is 0.00013 Hz here; Hann’s is larger by about 1.7.
    expect(found.uncertainty).toBeGreaterThan(0.0001);
    expect(found.uncertainty).toBeLessThan(0.0008);
  }
  const height = await hand.result('spectrum of x', 'amplitude');
  expect(Math.abs(height.value - amplitude)).toBeLessThan(4 * height.uncertainty);
  const box = await hand.boxOf('.own-graph-reading');
  const [from, to] = await ends('f');
  await system.page.mouse.move(box.x + (box.width * (frequency - from)) / (to - from), box.y + 30);
  await atRest(system.page);
  const [, f, y] = /([\d.]+) Hz: ([\d.]+)/.exec(await textOf('.own-graph-reading')) ?? [];
  expect(Number(f)).toBeCloseTo(frequency, 1);
  expect(Number(y)).toBeCloseTo(amplitude, 2);
});

test('the histogram counts every reading of the region once, beside mean and sd', async () => {
  await hand.offer('x', 'histogram');
  await system.page.waitForFunction(() => document.querySelectorAll('[data-graph]').length === 2);
  const inside = waves[1].filter((_, i) => i * interval >= 0.6 && i * interval <= 7.4);
  const counted = await hand.result('histogram of x', 'count');
  expect(Math.abs(counted.value - inside.length)).toBeLessThanOrEqual(2);
  const { value } = await hand.result('histogram of x', 'sd');
  expect(value).toBeCloseTo(amplitude / Math.SQRT2, 2);
  await hand.pressLabelled('Undo');
  await system.page.waitForFunction(() => document.querySelectorAll('[data-graph]').length === 1);
});

test('a label on a reading holds its value, follows its name, is moved by keys and by hand, and goes back by Undo', async () => {
  await key('Escape');
  const overlay = await hand.boxOf('[data-testid="overlay"]');
  await system.page.mouse.click(overlay.x + overlay.width * 0.5, overlay.y + overlay.height * 0.8);
  await atRest(system.page);
  await hand.press('Label', '.cursor-bar');
  await hand.item('the reading of x');
  await hand.element('.label-editor');
  await key('End');
  await system.page.keyboard.type(' at {t}');
  await atRest(system.page);
  await hand.press('Done', '.label-editor');
  const said = await textOf('.trace-label');
  const [, x, t] = /x = (0\.\d+) m at ([\d.]+) s/.exec(said) ?? [];
  expect(Number(x)).toBeCloseTo(waves[1][Math.round(Number(t) / interval)], 3);
  const before = (await sheetSaved()).pages[0].labels[0];
  expect(before.text).toBe('x = {x} at {t}');
  await system.page.$eval('.trace-label', (label) => (label as HTMLElement).focus());
  await key('ArrowRight', 3);
  const moved = (await sheetSaved()).pages[0].labels[0];
  expect(moved.offset.x).toBe(before.offset.x + 12);
  const tag = await hand.boxOf('.trace-label');
  await system.page.mouse.move(tag.x + tag.width / 2, tag.y + tag.height / 2);
  await system.page.mouse.down();
  await system.page.mouse.move(tag.x + tag.width / 2 + 50, tag.y + tag.height / 2 + 30, { steps: 5 });
  await system.page.mouse.up();
  await atRest(system.page);
  expect((await sheetSaved()).pages[0].labels[0].offset.x).toBeCloseTo(moved.offset.x + 50, 0);
  await hand.pressLabelled('Undo');
  expect((await sheetSaved()).pages[0].labels[0].offset.x).toBe(moved.offset.x);
});

const sheetSaved = async () => {
  await atRest(system.page);
  await hand.saved();
  return sheet();
};

test('the table holds the numbers of the file, goes to a time, follows the cursor and moves it, and marks a region', async () => {
  await key('Escape');
  await key('t');
  await hand.element('.number-row');
  await hand.type('Find t', '3.14');
  await system.page.waitForFunction(
    () => document.querySelector('.number-row.current')?.textContent?.startsWith('3.14') === true,
  );
  const [time, x] = await system.page.$$eval('.number-row.current > div', (cells) =>
    cells.map((cell) => Number((cell.textContent ?? '').replace('−', '-'))),
  );
  expect(time).toBeCloseTo(3.14, 9);
  expect(x).toBeCloseTo(waves[1][157], 3);
  await system.page.$eval('.number-rows', (rows) => (rows as HTMLElement).focus());
  await key('ArrowDown', 2);
  expect(await textOf('.number-row.current')).toMatch(/^3\.18/);
  expect(await textOf('.cursor-place')).toContain('3.18');
  await key('End');
  expect(await textOf('.number-row.current')).toMatch(/^7\.98/);
  await key('Home');
  const rows = await system.page.$$('.number-row');
  await system.page.keyboard.down('Shift');
  await rows[10].click();
  await system.page.keyboard.up('Shift');
  await hand.element('[aria-label="Region B"]');
  await atRest(system.page);
  const marked = await system.page.$$eval('.number-row', (all) =>
    all.filter((row) => (row as HTMLElement).style.background !== '').map((row) => row.textContent ?? ''),
  );
  expect(marked).toHaveLength(11);
});

test('what the table copies is what the file of columns has, number by number', async () => {
  await key('Escape');
  const origin = new URL(system.site).origin;
  await system.page
    .browserContext()
    .overridePermissions(origin, ['clipboard-read', 'clipboard-write', 'clipboard-sanitized-write']);
  await hand.pressLabelled('Copy all rows');
  await hand.waitForText('A table of 400 rows is copied');
  const copied = await system.page.evaluate(() => navigator.clipboard.readText());
  await hand.press('Files');
  await hand.item('Save shown runs');
  const saved = readFileSync(await downloaded(system.downloads, '.csv'), 'utf8');
  const own = numbersIn(copied);
  const file = numbersIn(saved);
  expect(own).toHaveLength(400);
  // The file holds both runs, the second one last.
  own.forEach((row, i) => expect(row).toEqual(file[i].slice(-2)));
  own.forEach(([, x], i) => expect(x).toBe(waves[1][i]));
  await key('t');
});

const numbersIn = (text: string): number[][] => {
  const reading = readTable(text);
  if (reading.kind !== 'table') throw new Error('not readable');
  const columns = reading.blocks[0].table.columns.map(({ values }) => arrayOf(values));
  return Array.from(columns[0], (_, i) => columns.map((values) => values[i]));
};

test('a picture of the page is saved as pixels of the chosen size and as shapes with every word in it', async () => {
  await hand.press('Files');
  await hand.item('Make a picture');
  await hand.element('.picture-preview img');
  await hand.pick('Size', 'For half a page');
  await hand.pick('Sharpness', '2 times');
  await hand.press('Save as pixels (PNG)');
  const pixels = readFileSync(await downloaded(system.downloads, '.png'));
  // Width and height stand in the first part of a PNG (ISO/IEC 15948).
  expect([pixels.readUInt32BE(16), pixels.readUInt32BE(20)]).toEqual([1520, 1040]);
  await hand.press('Save as shapes (SVG)');
  const shapes = readFileSync(await downloaded(system.downloads, '.svg'), 'utf8');
  for (const word of ['Known swing', '1 · first', '2 · second', 'x / m', 't / s', 'f / Hz', '>A<', 'x = 0.'])
    expect(shapes).toContain(word);
  expect(shapes.match(/<path/g)?.length).toBeGreaterThan(50);
  // Names of clipped parts are letters at random, and may hold these three.
  expect(shapes).not.toMatch(/\bNaN\b/);
  await hand.press('Copy', '.modal');
  await hand.waitForText('The picture is copied');
  const kinds = await system.page.evaluate(async () =>
    (await navigator.clipboard.read()).flatMap(({ types }) => types),
  );
  expect(kinds).toContain('image/png');
  expect(await barriersOn(system.page)).toEqual([]);
  await key('Escape');
});

test('readings that a hand draws around are set aside, hollow and said; Undo brings them back', async () => {
  await key('Escape');
  await hand.pressLabelled('Region A');
  await hand.press('set aside');
  await hand.item('What I draw around …');
  const overlay = await hand.boxOf('[data-testid="overlay"]');
  const plot = await hand.boxOf('[data-trace="channel:x"]');
  const { from, to } = await hand.viewport();
  const at = (time: number) => overlay.x + (overlay.width * (time - from)) / (to - from);
  const [left, right] = [at(stray * interval) - 9, at(stray * interval) + 9];
  const [top, foot] = [plot.y + 4, plot.y + plot.height * 0.35];
  await system.page.mouse.move(left, top);
  await system.page.mouse.down();
  for (const [x, y] of [
    [right, top],
    [right, foot],
    [left, foot],
    [left, top],
  ])
    await system.page.mouse.move(x, y, { steps: 4 });
  await system.page.mouse.up();
  await atRest(system.page);
  const { aside } = await sheetSaved();
  const readings = aside
    .flatMap(({ ranges }) => ranges)
    .reduce((sum, [first, past]) => sum + past - first, 0);
  expect(readings).toBeGreaterThan(0);
  expect(readings).toBeLessThan(12);
  expect(await hand.shownText('spectrum of x')).toContain('set aside');
  await hand.pressLabelled('Undo');
  expect((await sheetSaved()).aside).toEqual([]);
});

test('the wheel with Shift turns the upright axis, two fingers turn both, and one step back undoes each', async () => {
  const plot = await hand.boxOf('[data-trace="channel:x"]');
  const span = async (name: string) => {
    const [low, high] = await ends(name);
    return high - low;
  };
  const [tall, wide] = [await span('x'), await span('t')];
  await system.page.mouse.move(plot.x + plot.width / 2, plot.y + plot.height / 2);
  await system.page.keyboard.down('Shift');
  await system.page.mouse.wheel({ deltaY: -120 });
  await system.page.keyboard.up('Shift');
  await atRest(system.page);
  expect((await span('x')) / tall).toBeCloseTo(1 / 1.18, 1);
  expect(await span('t')).toBeCloseTo(wide, 6);
  await key('b');
  const client = await system.page.createCDPSession();
  const [x, y] = [plot.x + plot.width / 2, plot.y + plot.height / 2];
  const touch = (type: string, apart: number) =>
    client.send('Input.dispatchTouchEvent', {
      type: type as 'touchStart',
      touchPoints:
        type === 'touchEnd'
          ? []
          : [-1, 1].map((side, id) => ({ x: x + side * apart, y: y + side * 0.3 * apart, id })),
    });
  await touch('touchStart', 80);
  for (const apart of [100, 130, 160]) await touch('touchMove', apart);
  await touch('touchEnd', 0);
  await atRest(system.page);
  expect((await span('t')) / wide).toBeCloseTo(0.5, 1);
  await key('b');
  await atRest(system.page);
  expect(await span('t')).toBeCloseTo(wide, 4);
  expect(await system.page.$('[aria-label="Region C"]')).toBeNull();
  // One finger marks a region.
  const finger = (type: string, at: number) =>
    client.send('Input.dispatchTouchEvent', {
      type: type as 'touchStart',
      touchPoints: type === 'touchEnd' ? [] : [{ x: at, y, id: 0 }],
    });
  await finger('touchStart', x - 60);
  for (const at of [-40, 0, 40]) await finger('touchMove', x + at);
  await finger('touchEnd', 0);
  await hand.element('[aria-label="Region C"]');
  await hand.pressLabelled('Undo');
  await key('Escape');
});

test('against another quantity the cursor finds the reading that is pointed at, and steps along in time', async () => {
  await hand.press('Work out');
  await hand.item('Derivative of x');
  await hand.horizontal('x');
  await system.page.waitForFunction(
    () => document.querySelector('[aria-label^="Axis of x:"].level') !== null,
  );
  await atRest(system.page);
  const overlay = await hand.boxOf('[data-testid="overlay"]');
  await system.page.mouse.click(overlay.x + overlay.width * 0.5, overlay.y + 20);
  await atRest(system.page);
  const placeOf = async () => {
    const [, x, t] = /x = (0\.\d+) m, t = ([\d.]+) s/.exec(await textOf('.cursor-place')) ?? [];
    return { x: Number(x), t: Number(t) };
  };
  const first = await placeOf();
  expect(first.x).toBeCloseTo(waves[1][Math.round(first.t / interval)], 3);
  await system.page.$eval('[data-testid="overlay"]', (layer) => (layer as HTMLElement).focus());
  await key('ArrowRight');
  const next = await placeOf();
  expect(next.t).toBeCloseTo(first.t + interval, 6);
  expect(next.x).toBeCloseTo(waves[1][Math.round(next.t / interval)], 3);
  expect(await system.page.$$eval('.cursor-points circle', (all) => all.length)).toBe(2);
  expect(await barriersOn(system.page)).toEqual([]);
  await key('Escape');
  await hand.horizontal('t');
});

test('large digits fill the screen with a result, by keys alone', async () => {
  await key('d');
  await hand.element('.digit-wall');
  const size = await system.page.$eval('.digit-tile .reading', (reading) =>
    parseFloat(getComputedStyle(reading).fontSize),
  );
  expect(size).toBeGreaterThan(60);
  expect(await textOf('.digit-wall')).toContain('frequency of spectrum of x');
  expect(await barriersOn(system.page)).toEqual([]);
  await key('Escape');
  expect(await system.page.$('.digit-wall')).toBeNull();
});

test('table, labels and graphs of their own put no serious barrier before anybody', async () => {
  await key('t');
  await hand.element('.number-row');
  expect(await barriersOn(system.page)).toEqual([]);
  await key('t');
});
