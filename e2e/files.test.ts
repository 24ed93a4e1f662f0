import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type ElementHandle } from 'puppeteer-core';
import norris from '../packages/core/reference/norris.json';
import { arrayOf, readTable } from '@heuristor/core';
import { atRest } from './support/atRest';
import { BenchHand } from './support/bench';
import { type System, downloaded, startSystem } from './support/system';

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  system = await startSystem();
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
});
afterAll(() => system.close());

const give = async (name: string, text: string) => {
  const path = join(system.downloads, '..', name);
  writeFileSync(path, text);
  const input = (await system.page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
};

/** Student's t for 68.27 % and 34 degrees of freedom, by SciPy: t.ppf(0.5 + 0.6826894921370859 / 2, 34). */
const studentFactor = 1.0149237322384048;

const digits = (value: number, certified: number) =>
  -Math.log10(Math.abs(value - certified) / Math.abs(certified) || 1e-16);

test('home: the demo’s investigations are there; one is renamed, copied, removed and put back', async () => {
  await hand.openCopy(system.site, 'Channel buoy: soft and stiff spring');
  await hand.openCopy(system.site, 'Lifeboat on the slipway: three tilts');
  await system.open('/');
  await hand.waitForText('Channel buoy: soft and stiff spring');
  await hand.menu('More for Lifeboat on the slipway: three tilts (copy)', 'Rename');
  await hand.rename('Lifeboat');
  await system.page.waitForSelector('[aria-label="More for Lifeboat"]');
  await hand.menu('More for Lifeboat', 'Copy with its runs');
  await hand.waitForText('Lifeboat (copy)');
  const waitForCopies = (count: number) =>
    system.page.waitForFunction(
      (wanted: number) =>
        [...document.querySelectorAll('.home-row strong')].filter(
          ({ textContent }) => textContent === 'Lifeboat (copy)',
        ).length === wanted,
      {},
      count,
    );
  await hand.menu('More for Lifeboat (copy)', 'Remove');
  await hand.waitForText('“Lifeboat (copy)” is removed');
  await waitForCopies(0);
  await hand.press('Undo');
  await waitForCopies(1);
});

test('a copy has its own runs and says the same', async () => {
  await (await hand.element('::-p-xpath(//a[contains(., "Lifeboat (copy)")])')).click();
  const { value } = await hand.result('parabola through x', 'curvature');
  expect(value).toBeGreaterThan(1.2);
  expect(value).toBeLessThan(1.31);
});

test('Norris (NIST StRD) comes in as a file, is marked, fitted, and gives the certified line to 9 digits', async () => {
  await system.open('/');
  await hand.type('Name of the new investigation', 'Norris');
  await hand.waitForText('No run yet');
  await give(
    'norris.csv',
    `x;y\n${norris.x.map((x, i) => `${x};${norris.y[i]}`.replaceAll('.', ',')).join('\n')}\n`,
  );
  await hand.waitForText('rows, UTF-8');
  const chosen = (label: string) =>
    system.page.$eval(`select[aria-label="${label}"]`, (element) => (element as HTMLSelectElement).value);
  expect(await chosen('Decimal sign')).toBe(',');
  expect(await chosen('Separator')).toBe('semicolon');
  expect(await system.page.$$('.chip')).toHaveLength(0);
  await hand.press('Bring in as a run', '.modal');
  await hand.waitForText('1 · norris');
  await hand.press('Traces');
  await hand.element('.dropdown-menu.show');
  const [, against] = await system.page.$$(
    '::-p-xpath(//*[contains(@class,"show")]//button[@role="menuitemradio"])',
  );
  await against.click();
  await system.page.keyboard.press('Escape');
  await atRest(system.page);
  const box = await (await hand.element('[data-testid="overlay"]')).boundingBox();
  if (box === null) throw new Error('no traces');
  await system.page.mouse.move(box.x + 2, box.y + box.height * 0.4);
  await system.page.mouse.down();
  await system.page.mouse.move(box.x + box.width - 2, box.y + box.height * 0.4, { steps: 8 });
  await system.page.mouse.up();
  await hand.takeOffer('line', true);
  const slope = await hand.result('line through y against x', 'slope');
  const intercept = await hand.result('line through y against x', 'intercept');
  const [b0, b1] = norris.certified.parameters;
  const [s0, s1] = norris.certified.standardDeviations;
  for (const [found, certified] of [
    [slope.value, b1],
    [intercept.value, b0],
    [slope.uncertainty, studentFactor * s1],
    [intercept.uncertainty, studentFactor * s0],
  ])
    expect(digits(found, certified)).toBeGreaterThan(9);
  expect(await hand.shownText('line through y against x')).toContain('1.00212 ± 0.00044');
});

test('names and units are mended in the preview; a name twice is refused before anything is stored', async () => {
  await give('tow.csv', 't / s,F / Newton,F2\n0,1.5,3\n0.02,1.6,4\n0.04,1.7,5\n');
  await hand.waitForText('Newton is no unit known here');
  await hand.type('Unit of F', 'N');
  await hand.type('Name of column 2', 'F');
  await hand.waitForText('Another column is called F too.');
  await hand.element('.modal-footer button[disabled]');
  await hand.type('Name of column 2', 'x');
  await hand.type('Unit of x', 'cm');
  await hand.type('Name of the run', 'tow line');
  await hand.press('Bring in as a run', '.modal');
  await hand.waitForText('2 · tow line');
  const run = await system.page.evaluate(async () => {
    const id = location.pathname.split('/').pop();
    const { runs } = (await (await fetch(`/api/investigations/${id}`)).json()) as {
      runs: { name: string; channels: { key: string; unit: string }[] }[];
    };
    return runs[1];
  });
  expect(run.channels.map(({ key, unit }) => `${key} ${unit}`)).toEqual(['F N', 'x cm']);
  await hand.menu('More for run 2', 'Remove');
  await system.page.waitForFunction(() => document.querySelectorAll('.chip').length === 1);
});

test('a file is understood as somebody says: a rate instead of a time, columns left out, each row a spot reading; pasted ones too', async () => {
  await give(
    'logger.csv',
    '# a logger, 50 Hz\nSpring 3\nn;F / N;flag\n1;0,5;1\n2;0,75;0\n3;1,25;1\n\nSpring 4\nn;F / N;flag\n1;2,5;1\n2;2,75;0\n',
  );
  await hand.waitForText('5 rows, UTF-8, 3 lines of comment passed over');
  await hand.press('Bring in as 2 runs');
  await hand.waitForText('Spring 4');
  await give('logger.csv', 'n;F / N;flag\n1;0,5;1\n2;0,75;0\n3;1,25;1\n');
  await hand.waitForText('3 rows, UTF-8');
  await system.page.select('select[aria-label="What the readings are taken against"]', 'rate');
  await hand.element('input[aria-label="Rate of the rows"]');
  await hand.type('Rate of the rows', '20 ms');
  await hand.waitForText('time, every 0.02 s');
  for (const label of ['n', 'flag']) {
    await (await hand.element(`::-p-xpath(//label[normalize-space()="${label}"])`)).click();
    await system.page.waitForFunction(
      (column: string) =>
        ![...document.querySelectorAll('.import-run input')].some(
          (input) => (input as HTMLInputElement).value === column,
        ),
      { timeout: 40_000, polling: 50 },
      label,
    );
  }
  await hand.press('Bring in as a run');
  await hand.waitForText('· logger');
  const runs = await hand.runs();
  const rated = runs[runs.length - 1];
  expect(rated.channels.map(({ key, unit }) => [key, unit])).toEqual([['F', 'N']]);
  expect(rated.channels[0]).toMatchObject({
    sampling: { kind: 'regular', start: 0, interval: 0.02 },
    values: [0.5, 0.75, 1.25],
  });
  // Pasted, and each row a spot reading.
  await system.page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text', 'r / cm\tB / mT\n5\t1.5\n3\t4.25\n');
    document.body.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await hand.waitForText('2 rows, UTF-8');
  await system.page.select('select[aria-label="What the readings are taken against"]', 'spots');
  await hand.press('Bring in as spot readings');
  await hand.element('.chip ::-p-xpath(.//*[@class="tag"][.="2 readings"])');
});

test('a wrong cell is reported with its row and column, and no run is made of it', async () => {
  const before = (await system.page.$$('.chip')).length;
  await give('wrong.csv', 't / s,F / N\n0,1.5\n0.02,1.x\n');
  await hand.waitForText('Row 3, column 2 (F): “1.x” is not a number');
  await hand.press('Close', '.modal');
  expect(await system.page.$$('.chip')).toHaveLength(before);
});

test('a file of a million rows says how far it is; given up on the way it leaves nothing, and comes in when it is given again', async () => {
  const before = (await system.page.$$('.chip')).length;
  const rows = Array.from({ length: 1e6 }, (_, i) => `${(i / 1000).toFixed(3)},${((i * 7) % 1000) / 8}`);
  const text = `t / s,U / V\n${rows.join('\n')}\n`;
  await give('long.csv', text);
  await hand.waitForText('Reading …');
  await hand.press('Cancel', '.modal');
  await system.page.waitForFunction(() => document.querySelector('.modal') === null, { timeout: 40_000 });
  expect(await system.page.$$('.chip')).toHaveLength(before);
  await give('long.csv', text);
  await hand.waitForText('1,000,000 rows');
  await hand.press('Bring in as a run', '.modal');
  await hand.waitForText('· long');
  const [count, last] = await system.page.evaluate(async () => {
    const id = location.pathname.split('/').pop();
    const { runs } = (await (await fetch(`/api/investigations/${id}`)).json()) as {
      runs: { channels: { id: number }[] }[];
    };
    const channel = runs[runs.length - 1].channels[0].id;
    const values = new Float64Array(await (await fetch(`/api/channels/${channel}/values`)).arrayBuffer());
    return [values.length, values[values.length - 1]];
  });
  expect(count).toBe(1e6);
  // 999 999 × 7 leaves 993 over the thousands.
  expect(last).toBe(993 / 8);
});

test('shown runs leave as CSV with derived series, units in the headings, and are read back', async () => {
  await hand.openCopy(system.site, 'Channel buoy: soft and stiff spring');
  await hand.result('sine through x', 'period');
  await hand.press('Files');
  await hand.item('Save shown runs');
  const text = readFileSync(await downloaded(system.downloads, '.csv'), 'utf8');
  expect(text.split('\r\n')[0]).toContain('soft: t / s,soft: x / m,soft: v / (m.s-1),soft: a / (m.s-2)');
  const reading = readTable(text);
  if (reading.kind !== 'table') throw new Error('the export asks a question');
  const { columns } = reading.table;
  expect(columns).toHaveLength(12);
  // Number by number, against what the server holds.
  const stored = await system.page.evaluate(async (id: string | undefined) => {
    const { runs } = (await (await fetch(`/api/investigations/${id}`)).json()) as {
      runs: { channels: { id: number }[] }[];
    };
    return Promise.all(
      runs.map(async ({ channels }) =>
        Array.from(
          new Float64Array(await (await fetch(`/api/channels/${channels[0].id}/values`)).arrayBuffer()),
        ),
      ),
    );
  }, system.page.url().split('/').pop());
  stored.forEach((values, run) => {
    expect([...arrayOf(columns[4 * run + 1].values)]).toEqual(values);
    arrayOf(columns[4 * run].values).forEach((time, i) => expect(time).toBeCloseTo(i * 0.02, 12));
  });
  // And back again: the same runs, one beside the other.
  await give('back.csv', text);
  await hand.press('Bring in as 3 runs', '.modal');
  await hand.waitForText('6 · stiff');
  expect(system.faults).toEqual([]);
});
