import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { PNG } from 'pngjs';
import { BenchHand } from '../support/bench';
import { type System, downloaded, startSystem } from '../support/system';

// What leaves the application, opened by programs of others: an office suite (LibreOffice) and Python's pandas.

let system: System;
let hand: BenchHand;
let stored: number[][];

beforeAll(async () => {
  system = await startSystem();
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await (await hand.element('::-p-xpath(//a[contains(., "Channel buoy")])')).click();
  await hand.result('sine through x', 'period');
  stored = (await hand.runs()).map(({ channels }) => channels[0].values);
});
afterAll(() => system.close());

const office = (file: string, ...to: string[]) =>
  execFileSync('soffice', ['--headless', ...to, '--outdir', dirname(file), file], { stdio: 'ignore' });

/** The columns of a table as pandas reads it, by their headings. */
const columnsByPandas = (read: string, file: string): Record<string, (number | null)[]> =>
  JSON.parse(
    execFileSync(
      '/usr/bin/python3',
      [
        '-c',
        `import pandas, json, sys\ntable = pandas.${read}\nprint(json.dumps({name: [None if pandas.isna(v) else float(v) for v in table[name]] for name in table.columns}))`,
        file,
      ],
      { encoding: 'utf8', maxBuffer: 2 ** 26 },
    ),
  ) as Record<string, (number | null)[]>;

test('pandas reads a saved table of runs bit for bit', async () => {
  await hand.press('Files');
  await hand.item('Save shown runs');
  const file = await downloaded(system.downloads, '.csv');
  const columns = columnsByPandas('read_csv(sys.argv[1], float_precision="round_trip")', file);
  const readings = Object.entries(columns).filter(([name]) => name.includes(': x / m'));
  expect(readings).toHaveLength(3);
  readings.forEach(([, values], run) =>
    expect(values.slice(0, stored[run].length)).toEqual(
      stored[run].map((value) => (Number.isNaN(value) ? null : value)),
    ),
  );
});

test('an office suite opens it as numbers under their headings', async () => {
  const file = await downloaded(system.downloads, '.csv');
  // Separated by commas, quoted by double quotes, UTF-8, from the first line on.
  office(file, '--infilter=CSV:44,34,76,1', '--convert-to', 'xlsx');
  const columns = columnsByPandas('read_excel(sys.argv[1])', file.replace(/csv$/, 'xlsx'));
  const readings = Object.entries(columns).filter(([name]) => name.includes(': x / m'));
  expect(readings).toHaveLength(3);
  readings.forEach(([, values], run) =>
    stored[run].forEach((value, i) => {
      if (!Number.isNaN(value)) expect(values[i]).toBeCloseTo(value, 12);
    }),
  );
});

test('a picture as shapes is drawn by another program as the page draws it: its curves, not an empty sheet', async () => {
  await hand.press('Files');
  await hand.item('Make a picture');
  await hand.element('.picture-preview img');
  await hand.press('Save as shapes (SVG)');
  const file = await downloaded(system.downloads, '.svg');
  office(file, '--convert-to', 'png');
  const { width, height, data } = PNG.sync.read(readFileSync(file.replace(/svg$/, 'png')));
  let inked = 0;
  for (let i = 0; i < width * height; i++) if (Math.min(...data.subarray(4 * i, 4 * i + 3)) < 200) inked++;
  expect(inked / (width * height)).toBeGreaterThan(0.005);
  expect(inked / (width * height)).toBeLessThan(0.5);
});
