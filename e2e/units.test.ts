import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { type BenchHand } from './support/bench';
import { type System, downloaded } from './support/system';

// One pull, in metres by one file and in feet by the other (1 ft = 0.3048 m exactly): x = 0.2 m + 0.05 m/s² · t² from 0 to
// 4 s, F = 1 N + 2 N/m · x. Whatever a person marks, types and reads has to be the same place and the same force in both.

const foot = 0.3048;
const place = (t: number) => 0.2 + 0.05 * t * t;
const force = (t: number) => 1 + 2 * place(t);

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
  await hand.type('Name of the new investigation', 'Two tapes');
  await hand.waitForText('No run yet');
  for (const [name, unit, length] of [
    ['by the metre', 'm', 1],
    ['by the foot', 'ft', foot],
  ] as const) {
    const rows = Array.from({ length: 201 }, (_, i) => {
      const t = i * 0.02;
      return `${t.toFixed(2)},${(place(t) / length).toFixed(7)},${force(t).toFixed(7)}`;
    });
    await hand.bring(
      join(system.downloads, '..', `${name}.csv`),
      `t (s),x (${unit}),F (N)\n${rows.join('\n')}\n`,
      name,
    );
  }
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const inFront = async (run: number) => {
  await hand.menu(`More for run ${run}`, 'front');
  await atRest(system.page);
  await hand.element('.groups[aria-busy="false"]');
};
const ends = (letter: string) =>
  Promise.all(
    ['Start', 'End'].map((which) =>
      system.page.$eval(`input[aria-label="${which} of region ${letter}"]`, (field) =>
        Number((field as HTMLInputElement).value.replace('−', '-')),
      ),
    ),
  );
/** The mean of F between two moments, by its readings. */
const meanBetween = (from: number, to: number) => {
  const readings = Array.from({ length: 201 }, (_, i) => i * 0.02).filter((t) => t >= from && t <= to);
  return readings.reduce((sum, t) => sum + force(t), 0) / readings.length;
};

test('a level that is typed in the unit on the screen is the same place in a run in another unit', async () => {
  await hand.mark(1, 3);
  await hand.offer('F', 'mean');
  await hand.menu('More for region A', 'Attach its ends');
  await system.page.select('[aria-label="Begins when"] select', 'rises');
  await hand.type('Begins when: level', '1');
  await system.page.select('[aria-label="Ends when"] select', 'rises');
  await hand.type('Ends when: level', '2');
  await hand.menu('More for region A', 'Done changing');
  // The axis is in the unit of the newest run.
  await hand.waitForText('from x rises through 1 ft, to x rises through 2 ft');
  const [from, to] = [1, 2].map((feet) => Math.sqrt((feet * foot - 0.2) / 0.05));
  for (const run of [1, 2]) {
    await inFront(run);
    const [start, end] = await ends('A');
    expect(Math.abs(start - from)).toBeLessThan(0.006);
    expect(Math.abs(end - to)).toBeLessThan(0.006);
    await hand.waitForText('from x rises through 1 ft, to x rises through 2 ft');
  }
  for (const { value } of await hand.allResults('mean of F', 'mean'))
    expect(value).toBeCloseTo(meanBetween(from, to), 3);
});

test('runs in both units lie over one another along a length, with a region and in a saved picture', async () => {
  await hand.horizontal('x');
  await atRest(system.page);
  await hand.mark(1.2, 2.4);
  await hand.offer('F', 'slope');
  const slopes = await hand.allResults('slope of F against x', 'slope');
  // Cards tell a slope in the unit of each run: 2 N/m, and 0.6096 N/ft.
  expect(slopes).toHaveLength(2);
  for (const { value } of slopes)
    expect(Math.min(Math.abs(value - 2), Math.abs(value - 2 * foot))).toBeLessThan(1e-4);
  const drawn = async () =>
    (await system.page.$$eval('.region-handle', (all) =>
      all.map((one) => Math.round(one.getBoundingClientRect().x)),
    )) as number[];
  await inFront(2);
  const [before, told] = [await drawn(), await ends('B')];
  await inFront(1);
  // The region is where it was, and it says where in the unit of the axis.
  expect(await drawn()).toEqual(before);
  expect(await ends('B')).toEqual(told);
  expect(told.every((end) => end > 1 && end < 2.6)).toBe(true);

  await hand.press('Files');
  await hand.item('Make a picture');
  await hand.element('.picture-preview img');
  await hand.press('Save as shapes (SVG)');
  const shapes = readFileSync(await downloaded(system.downloads, '.svg'), 'utf8');
  expect(shapes).toMatch(/x\s*\/\s*ft/);
  const across = [
    ...shapes.matchAll(/<text[^>]* x="([-\d.]+)"[^>]*text-anchor="middle"[^>]*>([−\d.]+)<\/text>/g),
  ].map(([, x, text]) => ({ x: Number(x), value: Number(text.replace('−', '-')) }));
  const [first, last] = [across[0], across[across.length - 1]];
  const feetAt = (x: number) =>
    first.value + ((x - first.x) / (last.x - first.x)) * (last.value - first.value);
  const curves = [...shapes.matchAll(/<path[^>]* d="([^"]+)"/g)]
    .map(([, d]) => [...d.matchAll(/[ML]\s*([-\d.]+)/g)].map(([, x]) => Number(x)))
    .filter((places) => places.length > 20);
  expect(curves.length).toBeGreaterThanOrEqual(2);
  for (const places of curves.map((one) => [Math.min(...one), Math.max(...one)])) {
    // From 0.2 m to 1 m, or, of the line that was fitted, between the ends of its region.
    expect(feetAt(places[0])).toBeGreaterThan(0.2 / foot - 0.05);
    expect(feetAt(places[1])).toBeLessThan(1 / foot + 0.05);
  }
});
