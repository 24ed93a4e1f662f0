import { join } from 'node:path';
import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { BenchHand } from './support/bench';
import { type System } from './support/system';

// Going through the pages of an investigation and back: everything on the bench is as it was left.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const slope = () => {
  const rows = Array.from({ length: 400 }, (_, i) => {
    const t = i * 0.02;
    return `${t.toFixed(2)},${(0.3 * t + 0.02 * Math.sin(9 * t)).toFixed(5)}`;
  });
  return `t (s),x (m)\n${rows.join('\n')}\n`;
};
const link = (title: string) => hand.press(title, 'nav[aria-label="Pages"]');
const cursorWords = () =>
  system.page.$eval('.cursor-bar', (bar) => (bar as HTMLElement).innerText.replace(/\s+/g, ' '));
const undoWords = () => system.page.$eval('[aria-label="Undo"]', (button) => button.getAttribute('title'));
const look = async () => ({
  sight: await hand.viewport(),
  cursor: await cursorWords(),
  undo: await undoWords(),
  regions: await system.page.$$eval('[aria-label^="Region "]', (all) =>
    all.map((one) => one.getAttribute('aria-label')),
  ),
});

test('going to the Stage and back leaves zoom, cursor, workers and undo as they were, and fetches nothing', async () => {
  await system.open('/');
  await hand.type('Name of the new investigation', 'There and back');
  await hand.waitForText('No run yet');
  await hand.bring(join(system.downloads, '..', 'slope.csv'), slope(), 'slope');
  await hand.mark(1, 3);
  await hand.takeOffer('line', true);
  await hand.waitForText(/slope · line through x\s+\d/);
  await hand.saved();
  // A look at a part of the run, with the cursor in it.
  const overlay = await (await hand.element('[data-testid="overlay"]')).boundingBox();
  if (overlay === null) throw new Error('the traces have no place');
  await system.page.mouse.move(overlay.x + overlay.width / 2, overlay.y + overlay.height * 0.8);
  await system.page.mouse.wheel({ deltaY: -400 });
  await atRest(system.page);
  await system.page.mouse.click(overlay.x + overlay.width * 0.7, overlay.y + overlay.height * 0.8);
  await atRest(system.page);
  const before = await look();
  expect(before.sight.to - before.sight.from).toBeLessThan(7);
  expect(before.undo).toMatch(/^Undo: add line through x/);
  const workers = system.page.workers();
  const asked: string[] = [];
  const note = (request: { url(): string }) => {
    if (/\/api\/(investigations|runs|channels)/.test(request.url())) asked.push(request.url());
  };
  system.page.on('request', note);
  await link('Stage');
  await hand.element('.scene-list a.active');
  expect(new URL(system.page.url()).pathname).toMatch(/^\/investigations\/[-0-9a-f]+\/stage\//);
  // What is taken back is taken back where it is seen.
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press('z');
  await system.page.keyboard.up('Control');
  await link('Bench');
  await hand.element('.cursor-bar');
  await atRest(system.page);
  expect(await look()).toEqual(before);
  await system.page.goBack();
  await hand.element('.scene-list a.active');
  await system.page.goForward();
  await hand.element('.cursor-bar');
  await atRest(system.page);
  system.page.off('request', note);
  expect(await look()).toEqual(before);
  expect(asked).toEqual([]);
  expect(system.page.workers()).toEqual(workers);
  // The steps of before are taken back one by one, each by its name.
  await hand.pressLabelled('Undo');
  expect(await undoWords()).toMatch(/^Undo: (add|move) region A/);
  await hand.pressLabelled('Undo');
  await hand.pressLabelled('Redo');
  await hand.pressLabelled('Redo');
  await hand.waitForText(/slope · line through x\s+\d/);
});

test('what was changed a moment ago stands there when numbers are written otherwise', async () => {
  const unit = await hand.element('select[aria-label="Unit of slope"]');
  await unit.select('cm/s');
  // At once, before it can be stored.
  await (await hand.element('[aria-label="1.5: decimal point; press for a comma"]')).click();
  await hand.waitForText(/\d+,\d+ ± \d+,\d+\s+cm s/);
  await hand.saved();
  expect(await hand.shownText('line through x')).toMatch(/\d+,\d+ ± \d+,\d+\s+cm s/);
  await hand.pressLabelled('1,5: decimal comma; press for a point');
  await hand.waitForText(/\d+\.\d+ ± \d+\.\d+\s+cm s/);
});

test('a sheet that is changed while another screen opens it is there as it was changed', async () => {
  const id = system.page.url().split('/')[4];
  for (let i = 0; i < 4; i++) {
    const name = `held ${i}`;
    const opening = system.newPage(`/investigations/${id}`);
    // The change is stored in the very moment in which the other screen is being opened.
    const stored = await system.page.evaluate(
      async (investigation: string, called: string) => {
        const { workings, workingsVersion } = (await (
          await fetch(`/api/investigations/${investigation}`)
        ).json()) as { workings: { entries: { kind: string }[] }; workingsVersion: number };
        const entries = workings.entries.map((entry) =>
          entry.kind === 'region' ? { ...entry, name: called } : entry,
        );
        const answer = await fetch(`/api/investigations/${investigation}/workings`, {
          method: 'PUT',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ version: workingsVersion, workings: { ...workings, entries } }),
        });
        return answer.status;
      },
      id,
      name,
    );
    expect(stored).toBe(200);
    const other = await opening;
    await new BenchHand(other).waitForText(name);
    await other.close();
  }
});

test('the Stage of an investigation opens at the apparatus in front of a sensor that is used there', async () => {
  await hand.begin(system.site, 'Buoy', ['K7-D']);
  await link('Stage');
  await hand.element('.scene-list a.active');
  expect(new URL(system.page.url()).pathname).toMatch(/\/stage\/buoy$/);
  await link('Bench');
  await hand.waitForText('is ready');
  // Of no investigation, it begins with the first.
  await system.open('/stage');
  await hand.element('.scene-list a.active');
  expect(new URL(system.page.url()).pathname).toMatch(/^\/stage\/(?!buoy)/);
});

test('which runs are shown, and how they are drawn, is stored in the sheet: on all screens of its owner, back by a key, after a reload', async () => {
  await system.open('/');
  await hand.type('Name of the new investigation', 'Looks');
  await hand.waitForText('No run yet');
  for (const name of ['first', 'second'])
    await hand.bring(join(system.downloads, '..', `${name}.csv`), slope(), name);
  const looks = (page = system.page) =>
    page.$$eval('.chip[data-run]', (chips) =>
      chips.map((chip) => [
        !chip.classList.contains('hidden-run'),
        chip.querySelector('svg [stroke]')?.getAttribute('stroke'),
      ]),
    );
  const before = await looks();
  expect(before.map(([shown]) => shown)).toEqual([true, true]);
  const second = await system.newPage(new URL(system.page.url()).pathname);
  await new BenchHand(second).element('.chip[data-run="2"]');
  await system.page.bringToFront();
  await (await hand.element('.chip[data-run="1"] button')).click();
  await system.page.waitForSelector('.chip.hidden-run[data-run="1"]');
  expect(await undoWords()).toMatch(/^Undo: hide one run/);
  await second.waitForFunction(() => document.querySelector('.chip.hidden-run[data-run="1"]') !== null, {
    polling: 100,
  });
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press('z');
  await system.page.keyboard.up('Control');
  await system.page.waitForFunction(() => document.querySelector('.chip.hidden-run') === null);
  // A tab in the background draws no frames to wait by.
  await second.waitForFunction(() => document.querySelector('.chip.hidden-run') === null, { polling: 100 });
  expect(await looks()).toEqual(before);
  await second.close();
  await system.page.bringToFront();
  await hand.pressLabelled('More for run 2');
  await (await system.page.waitForSelector('.dropdown-menu.show .dropdown-item:last-of-type'))?.click();
  await (await hand.element('.chip[data-run="1"] button')).click();
  await system.page.waitForSelector('.chip.hidden-run[data-run="1"]');
  const after = await looks();
  expect(after[1][1]).not.toBe(before[1][1]);
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('.chip.hidden-run[data-run="1"]');
  expect(await looks()).toEqual(after);
});
