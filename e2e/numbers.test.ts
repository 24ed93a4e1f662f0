import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { normalRandom } from '@heuristor/core';
import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { type BenchHand } from './support/bench';
import { type System, downloaded } from './support/system';

// Numbers as a person reads them on the cards: temperatures, bounded fits, comparisons, what ± means.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
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
  expect(card).toMatch(/mean of T[^±]*?[\d.]+( ± [\d.]+)?\s+°C/);
  expect(card).toMatch(/range\s*=?\s*[\d.]+\s+K/);
  expect(card).toMatch(/sd\s*=?\s*[\d.]+\s+K/);
  expect(card).toContain('± is by the noise of the readings; the quantity itself changes here, as sd tells.');
  await workOut('Result by a formula');
  await typeFormula('Q = c m (T2 - T1)');
  await constant('c', '4200', 'J/(kg K)');
  await constant('m', '0.25', 'kg');
  await constant('T2', '60', '°C');
  await constant('T1', '52', '°C');
  await atRest(system.page);
  await (await hand.element('input[aria-label="Formula"]')).click();
  await system.page.keyboard.press('Enter');
  // 4200 J/(kg K) × 0.25 kg × 8 K, by hand.
  expect((await hand.result('c m (T2 - T1)', 'value')).value).toBeCloseTo(8400, 9);
  expect(await hand.shownText('c m (T2 - T1)')).toMatch(/8\.400\s+kJ/);
});

test('a fit whose parameters all end at their bounds says so, and the bench stands, also after a reload', async () => {
  await begin('Bounds');
  const rows = Array.from(
    { length: 40 },
    (_, i) => `${(i * 0.1).toFixed(1)},${(3 + 2 * i * 0.1).toFixed(4)}`,
  );
  await bring('ramp', `t (s),x (m)\n${rows.join('\n')}\n`);
  await hand.mark(0, 3.8);
  await hand.relationsBySight();
  await hand.element('[data-relation]');
  await (await hand.element('.palette-ask input')).click();
  await system.page.keyboard.type('a + b t');
  await atRest(system.page);
  await system.page.keyboard.press('Enter');
  await hand.result('x = a + b t', 'b');
  await hand.type('Greatest of a', '1');
  await hand.type('Greatest of b', '0.5');
  await hand.waitForText('a is at its limit, 1; it counts as held there');
  await hand.waitForText('b is at its limit, 0.5');
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  expect((await hand.result('x = a + b t', 'b')).value).toBe(0.5);
  await hand.waitForText('is at its limit');
});

test('who begins to type before a new entry has offered its field loses no letter', async () => {
  await begin('Fast hands');
  await bring('cooling once more', cooling());
  await hand.press('Work out');
  // All of it at once, as a page that stands still for a moment sees it.
  const held = await system.page.evaluate(async () => {
    const items = [...document.querySelectorAll<HTMLElement>('.palette-item')];
    items.find(({ innerText }) => innerText.startsWith('Result by a formula'))?.click();
    await new Promise((resolve) => requestAnimationFrame(resolve));
    const field = document.querySelector<HTMLInputElement>('input[aria-label="Formula"]');
    field?.focus();
    document.execCommand('insertText', false, '2 +');
    for (let pictures = 0; pictures < 6; pictures++)
      await new Promise((resolve) => requestAnimationFrame(resolve));
    document.execCommand('insertText', false, ' 3');
    return field?.value;
  });
  expect(held).toBe('2 + 3');
});

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
  await atRest(system.page);
  await (await hand.element('input[aria-label="Formula"]')).click();
  await system.page.keyboard.press('Enter');
  await workOut('Comparison of two results');
  // 0.12 N are 2.4 standard uncertainties of 0.05 N; a normal distribution passes that once in 61 times.
  await hand.waitForText(
    'They hardly agree: they are 0.12 N apart, and the standard uncertainty of that is 0.050 N; chance alone makes a difference as large in one case of 61.',
  );
});

/** A swing of 50 mm with a period of 0.94 s, read 50 times a second. */
const swing = () => {
  const random = normalRandom(9);
  const rows = Array.from({ length: 300 }, (_, i) => {
    const t = i * 0.02;
    return `${t.toFixed(2)},${(0.05 * Math.sin((2 * Math.PI * t) / 0.94) + 0.0002 * random()).toFixed(6)}`;
  });
  return `t (s),x (m)\n${rows.join('\n')}\n`;
};
const choose = async (label: string, value: string) => {
  const list = await hand.element(`select[aria-label="${label}"]`);
  await list.select(value);
};
const numberBehind = (text: string, name: string): number =>
  Number(new RegExp(`${name}\\s+([−\\d.,]+)`).exec(text)?.[1].replace('−', '-').replace(',', '.'));

test('what a window flattens is said beside its slider, corrected in the result, and the card says what it would have been', async () => {
  await begin('Flattened');
  await bring('swing', swing());
  await workOut('Derivative of x');
  await hand.waitForText('over 9 readings');
  await hand.unfoldCard('[data-kind="derivative"]');
  // A parabola over 9 readings of 0.02 s passes a swing of 0.94 s by 0.965.
  await hand.waitForText(/The window of v takes 3\.\d % off the motion of this run/);
  await hand.mark(0.5, 5.3);
  await hand.offer('v', 'sine');
  const { value, uncertainty } = await hand.result('sine through v', 'amplitude');
  const truth = (2 * Math.PI * 0.05) / 0.94;
  expect(Math.abs(value - truth)).toBeLessThan(3 * uncertainty);
  expect(uncertainty).toBeLessThan(0.003 * truth);
  const card = await hand.shownText('sine through v');
  expect(card).toMatch(/The window of v flattens what is in this region: amplitude would be 0\.32\d* ± /);
  expect(card).toContain('This is corrected');
});

test('a result is shown with the prefix that its size asks for; another unit is one press away, and so is a decimal comma', async () => {
  await begin('Units');
  await bring('swing again', swing());
  await hand.mark(0.5, 5.3);
  await hand.takeOffer('sine', true);
  await hand.result('sine through x', 'amplitude');
  const plain = await hand.shownText('sine through x');
  expect(plain).toMatch(/amplitude\s+[45]\d\.\d+ ± 0\.\d+\s+mm/);
  await choose('Unit of amplitude', 'cm');
  await hand.waitForText(/[45]\.\d+ ± 0\.00\d+/);
  expect(await hand.shownText('sine through x')).toMatch(/amplitude\s+[45]\.\d+ ± 0\.\d+\s+cm/);
  await hand.pressLabelled('1.5: decimal point; press for a comma');
  await hand.waitForText(/amplitude\s+[45],\d+ ± 0,\d+/);
  const ticks = await system.page.evaluate(() => document.body.innerText);
  expect(ticks).not.toMatch(/\d\.\d/);
  // Both are read where something is typed.
  await hand.type('Start of region A', '0,98');
  await hand.type('End of region A', '4.74');
  await atRest(system.page);
  const typed = await system.page.$$eval('.region-ends input', (fields) =>
    fields.map((field) => field.value),
  );
  expect(typed).toEqual(['0,98', '4,74']);
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  await hand.waitForText(/amplitude\s+[45],\d+ ± 0,\d+/);
  expect(numberBehind(await hand.shownText('sine through x'), 'amplitude')).toBeCloseTo(5, 1);
  await hand.pressLabelled('1,5: decimal comma; press for a point');
  await hand.waitForText(/amplitude\s+[45]\.\d+ ± 0\.\d+/);
});

test('a logger’s file with dates, units in a row of their own, NA and grouped thousands comes in as it is', async () => {
  await begin('Mast');
  const text = [
    'Weather mast of the quay',
    'Date;Time;Pressure;Humidity',
    ';;hPa;%',
    '29.11.2026;10:15:00;1 013,2;45,5',
    '29.11.2026;10:16:00;1 013,1;NA',
    "29.11.2026;10:17:00;1'012,9;46,0",
    '29.11.2026;10:18:00;1 012,8;46,5',
  ].join('\r\n');
  await bring('Weather mast of the quay', text);
  await hand.mark(1, 179);
  await hand.offer('Pressure', 'mean');
  // Between them lie the readings of 10:16 and 10:17.
  expect((await hand.result('mean of Pressure', 'mean')).value).toBeCloseTo((1013.1 + 1012.9) / 2, 6);
});

test('times of day in a file are shown before it is taken in', async () => {
  await begin('Watch');
  await hand.offerFile(
    join(system.downloads, '..', 'watch.csv'),
    'clock,T (°C)\n23:59:58,20.5\n23:59:59,20.6\n00:00:00,20.7\n',
  );
  await hand.waitForText(
    'Times are times of day: the clock showed 23:59:58 at the first reading, which is t = 0.',
  );
  await hand.press('Bring in as a run', '.modal');
  await hand.waitForText('· watch');
});

test('a saved picture marks a wrong echo with a cross beside its value', async () => {
  await hand.openCopy(system.site, 'Channel buoy');
  await hand.named('the swing', 'period');
  await hand.press('Files');
  await hand.item('Make a picture');
  await hand.element('.picture-preview img');
  await hand.press('Save as shapes (SVG)');
  const file = await downloaded(system.downloads, '.svg');
  const shapes = readFileSync(file, 'utf8');
  rmSync(file);
  const echoes = [...shapes.matchAll(/<text([^>]*) x="([-\d.]+)"[^>]*>(3\.957|1\.099)<\/text>/g)];
  expect(echoes.map(([, , , text]) => text).sort()).toEqual(['1.099', '3.957']);
  // Two strokes of 8 pixels that cross, 4 pixels before the value.
  const crosses = [
    ...shapes.matchAll(/ d="\s*M ([-\d.]+) [-\d.]+ L ([-\d.]+) [-\d.]+ M \1 [-\d.]+ L \2 [-\d.]+"/g),
  ];
  for (const [, how, x] of echoes) {
    expect(how).not.toMatch(/stroke="#/);
    expect(
      crosses.some(([, from, to]) => Number(to) - Number(from) === 8 && Number(x) - Number(to) === 4),
    ).toBe(true);
  }
});

test('a saved picture has the axis of the run: its ticks, and the ends of the curve', async () => {
  await begin('Saved');
  await bring('saved swing', swing());
  await hand.press('Files');
  await hand.item('Make a picture');
  await hand.element('.picture-preview img');
  await hand.press('Save as shapes (SVG)');
  const shapes = readFileSync(await downloaded(system.downloads, '.svg'), 'utf8');
  const across = [
    ...shapes.matchAll(/<text[^>]* x="([-\d.]+)"[^>]*text-anchor="middle"[^>]*>([−\d.]+)<\/text>/g),
  ].map(([, x, text]) => ({ x: Number(x), value: Number(text.replace('−', '-')) }));
  // Readings from 0 to 5.98 s.
  expect(across.map(({ value }) => value)).toEqual(across.map((_, i) => i / 2));
  expect(across).toHaveLength(12);
  const pixels = (across[11].x - across[0].x) / 5.5;
  across.forEach(({ x, value }) => expect(x).toBeCloseTo(across[0].x + value * pixels, 0));
  const curve = [...shapes.matchAll(/<path[^>]* d="([^"]+)"/g)]
    .map(([, d]) => d)
    .sort((a, b) => b.length - a.length)[0];
  const places = [...curve.matchAll(/[ML]\s*([-\d.]+)/g)].map(([, x]) => Number(x));
  expect(Math.min(...places)).toBeCloseTo(across[0].x, 0);
  expect(Math.abs(Math.max(...places) - (across[0].x + 5.98 * pixels))).toBeLessThan(1.5);

  // The same in the pixels: colour where the curve goes, and none of it where the curve mirrored in time would.
  // The curve stands on a sheet of its own, laid on the whole.
  const laid = [...shapes.slice(0, shapes.indexOf(curve)).matchAll(/<svg[^>]*>/g)].at(-1)?.[0] ?? '';
  const [left, top] = ['x', 'y'].map((name) =>
    Number(new RegExp(` ${name}="([-\\d.]+)"`).exec(laid)?.[1] ?? 0),
  );
  const points = [...curve.matchAll(/[ML]\s*([-\d.]+)[ ,]+([-\d.]+)/g)].map(([, x, y]) => [
    Number(x) + left,
    Number(y) + top,
  ]);
  const [, width] = /<svg[^>]* width="([\d.]+)"/.exec(shapes) ?? [];
  await hand.press('Save as pixels (PNG)');
  const png = readFileSync(await downloaded(system.downloads, '.png')).toString('base64');
  const coloured = await system.page.evaluate(
    async (data: string, wide: number, all: number[][]) => {
      const bytes = Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0));
      const picture = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
      const canvas = new OffscreenCanvas(picture.width, picture.height);
      const paper = canvas.getContext('2d');
      if (paper === null) return null;
      paper.drawImage(picture, 0, 0);
      const scale = picture.width / wide;
      const isColoured = (x: number, y: number) => {
        const { data: pixels } = paper.getImageData(
          Math.round(x * scale) - 1,
          Math.round(y * scale) - 1,
          3,
          3,
        );
        for (let i = 0; i < pixels.length; i += 4)
          if (Math.max(...pixels.slice(i, i + 3)) - Math.min(...pixels.slice(i, i + 3)) > 90) return true;
        return false;
      };
      const [first, last] = [all[0][0], all[all.length - 1][0]];
      return {
        here: all.filter(([x, y]) => isColoured(x, y)).length / all.length,
        mirrored: all.filter(([x, y]) => isColoured(first + last - x, y)).length / all.length,
      };
    },
    png,
    Number(width),
    points,
  );
  expect(coloured?.here).toBeGreaterThan(0.97);
  expect(coloured?.mirrored).toBeLessThan(0.5);
});

test('the first opening of a menu after a reload stands at what opens it', async () => {
  await begin('Menus');
  await bring('menu swing', swing());
  await hand.saved();
  for (const opener of ['Files', 'Templates']) {
    await system.page.reload({ waitUntil: 'load' });
    await hand.waitForText('· menu swing');
    await hand.press(opener);
    const { menu, toggle } = await system.page.evaluate(() => {
      const box = (selector: string) => {
        const { left, right, top, bottom } =
          document.querySelector(selector)?.getBoundingClientRect() ?? new DOMRect();
        return { left, right, top, bottom };
      };
      return {
        menu: box('.dropdown-menu.show'),
        toggle: box('.dropdown-toggle.show, [aria-expanded="true"]'),
      };
    });
    const apart = Math.min(Math.abs(menu.top - toggle.bottom), Math.abs(toggle.top - menu.bottom));
    expect([opener, apart < 12, menu.left < toggle.right && toggle.left < menu.right]).toEqual([
      opener,
      true,
      true,
    ]);
    expect(menu.left >= 0 && menu.right <= 1280 && menu.top >= 0 && menu.bottom <= 800).toBe(true);
  }
});
