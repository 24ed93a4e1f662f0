import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { type BenchHand } from './support/bench';
import { StageHand } from './support/stage';
import { type System } from './support/system';

let system: System;
let hand: BenchHand;
let stage: StageHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
  stage = await StageHand.open(system, 'walker');
  await system.page.bringToFront();
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const chips = () =>
  system.page.$$eval('.chip', (all) => all.map((chip) => (chip as HTMLElement).innerText.trim()));
const fieldText = (label: string) =>
  system.page.$eval(`input[aria-label="${label}"]`, (field) => (field as HTMLInputElement).value);

test('practice runs are kept apart, cleared together, and come back together', async () => {
  await hand.begin(system.site, 'Walking', ['K9-W']);
  await hand.lengthOfRun('0.5');
  await system.page.click('#plan-practice');
  await hand.record();
  await hand.record();
  await system.page.click('#plan-practice');
  await hand.record();
  expect(await chips()).toEqual([
    expect.stringMatching(/1 · run 1\s*practice/),
    expect.stringMatching(/2 · run 2\s*practice/),
    '3 · run 3',
  ]);
  await hand.press('Clear 2 practice runs');
  await hand.waitForText('2 runs are removed');
  expect(await chips()).toEqual(['3 · run 3']);
  await hand.pressLabelled('Undo');
  await system.page.waitForFunction(() => document.querySelectorAll('.chip').length === 3);
  await hand.press('Clear 2 practice runs');
  await system.page.waitForFunction(() => document.querySelectorAll('.chip').length === 1);
});

test('conditions are asked of every run, carried over to the next, and take any unit', async () => {
  for (const [name, unit] of [
    ['mass', 'kg'],
    ['shoes', ''],
  ]) {
    await hand.press('Condition', '.conditions');
    await hand.element('input[aria-label="Name of the new condition"]');
    await system.page.type('input[aria-label="Name of the new condition"]', name);
    await system.page.type('input[aria-label="Unit of the new condition"]', unit);
    await hand.press('Ask for it in every run');
    await hand.element(`input[aria-label="${name} of run 3"]`);
  }
  await hand.type('mass of run 3', '480 ± 2 g');
  await system.page.waitForFunction(
    () =>
      (document.querySelector('input[aria-label="mass of run 3"]') as HTMLInputElement).value ===
      '0.48 ± 0.002',
  );
  await hand.type('shoes of run 3', 'rubber');
  await hand.type('Group of run 3', 'The cormorants');
  await hand.type('mass of run 3', 'heavy');
  await hand.waitForText('“heavy” is no number. Type one like 1.25 kg.');
  await hand.record();
  await hand.element('input[aria-label="mass of run 4"]');
  expect(await fieldText('mass of run 4')).toBe('0.48 ± 0.002');
  expect(await fieldText('shoes of run 4')).toBe('rubber');
  expect(await fieldText('Group of run 4')).toBe('The cormorants');
  expect(await fieldText('Note on run 4')).toBe('');
  await hand.type('mass of run 4', '0.5');
  await system.page.reload({ waitUntil: 'load' });
  await hand.element('input[aria-label="mass of run 4"]');
  expect(await fieldText('mass of run 4')).toBe('0.5');
});

test('a run knows how it was recorded: plan, sensor, rate, zero', async () => {
  await hand.menu('More for run 4', 'How it was recorded');
  await hand.waitForText('Planned to begin when pressed and to end after 0.5 s.');
  const details = await system.page.$eval('.run-details', (body) => (body as HTMLElement).innerText);
  expect(details).toContain('by The cormorants');
  expect(details).toMatch(/K9-W\s+50 readings a second\s+0\.15 to 6 m\s+as the sensor has it/);
  await hand.pressLabelled('Close');
  await atRest(system.page);
});

test('a sensor that is used elsewhere says where; taking it over is said on the bench that lost it', async () => {
  const first = system.page.url();
  await hand.begin(system.site, 'Another bench', []);
  await hand.press('Connect');
  await hand.waitForText('in use in “Walking”');
  await hand.item('K9-W');
  await hand.waitForText('“Walking” reads it now');
  await hand.press('Take it over', '.modal');
  await hand.element('[aria-label="Motion sensor K9-W"]');
  await system.page.goto(first, { waitUntil: 'load' });
  await hand.waitForText('In use in “Another bench”.');
  await hand.press('Take it over');
  await hand.press('Take it over', '.modal');
  await hand.element('[aria-label="Motion sensor K9-W"]');
  // Undone, it is the other bench's again.
  await hand.pressLabelled('Undo');
  await hand.waitForText('In use in “Another bench”.');
  await hand.pressLabelled('Redo');
  await hand.element('[aria-label="Motion sensor K9-W"]');
});

test('readings at a limit are said, with the wider range as their mend', async () => {
  await stage.show('rail');
  await stage.set('Moment of the magnet', 2);
  await stage.set('Distance from the tip', 0.02);
  await hand.begin(system.site, 'Hints', ['F7-B']);
  await hand.pressLabelled('Set up F7-B');
  const panel = '[aria-label="Channel B"]';
  const range = await hand.element(`${panel} ::-p-xpath(.//label[.="Range"]/following-sibling::select[1])`);
  await range.select('fine');
  await hand.pressLabelled('Close the set-up');
  await hand.waitForText('B is at its limit (F7-B) and measures nothing.');
  // Readings at the limit are drawn as none, and left out.
  await hand.lengthOfRun('0.5');
  await hand.record();
  await hand.waitForText('at the sensor’s limit: left out of what is worked out');
  await hand.press('Take the range to 90 mT');
  await system.page.waitForFunction(() => !document.body.innerText.includes('B stands at its limit'), {
    timeout: 40_000,
  });
  await hand.pressLabelled('Undo');
  await hand.waitForText('B is at its limit (F7-B) and measures nothing.');
});

test('a rate that met the motion of a run too coarsely is said, with its mend; the hand between runs is none', async () => {
  await stage.show('buoy');
  await hand.begin(system.site, 'Coarse', ['K7-D']);
  await hand.plan('Rate', () => hand.type('Sample rate of K7-D', '8 Hz'));
  await stage.press('Pull it down and hold');
  await stage.press('Let go');
  await hand.lengthOfRun('6');
  await system.pass(15);
  expect(await hand.page.$('.plan-hints')).toBeNull();
  await hand.record();
  await hand.waitForText('In the last run x moved with up to');
  await hand.waitForText('at 8 Hz a period has');
  // 20 readings in each of about a second.
  const mend = await hand.element('.plan-hints button');
  expect(await mend.evaluate(({ textContent }) => textContent)).toMatch(/^Take (20|50) Hz$/);
  await mend.click();
  await system.page.waitForFunction(() => /Take (20|50) readings a second/.test(document.body.innerText));
  await hand.record();
  await system.page.waitForFunction(() => document.querySelector('.plan-hints') === null, {
    timeout: 40_000,
  });
});
