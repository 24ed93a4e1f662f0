import { readFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { atRest } from './support/atRest';
import { barriersOn } from './support/barriers';
import { pressIn, saidBy, untilSaid } from './support/guide';
import { type Lab, openLab } from './support/lab';
import { stored, toNotebook, wordsOf } from './support/notebook';
import { downloaded } from './support/system';

// A guide is followed, answered and checked; it is written, and sets the bench up. The apparatus is the beacon.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
beforeAll(async () => {
  lab = await openLab('beacon');
  ({ system, hand } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const shown = 'Sketch the voltage of the capacitor';
/** How many pixels of the sketch have a colour or nearly so. */
async function pixelsLike(colour: readonly number[]): Promise<number> {
  const pad = await hand.element('.sketch-pad canvas');
  const { data } = PNG.sync.read(Buffer.from(await pad.screenshot()));
  let count = 0;
  for (let i = 0; i < data.length; i += 4)
    if (colour.every((part, k) => Math.abs(data[i + k] - part) < 40)) count++;
  return count;
}
/** The colour of the sketch, and that of what was measured. */
const lilac = [0x6f, 0x4f, 0xa0];
const ink = [0x16, 0x28, 0x2f];

async function drawFalling(): Promise<void> {
  const { x, y, width, height } = await (
    await hand.element('.sketch-pad canvas')
  ).evaluate((canvas) => {
    canvas.scrollIntoView({ block: 'center' });
    const box = canvas.getBoundingClientRect();
    return { x: box.x, y: box.y, width: box.width, height: box.height };
  });
  const at = (share: number) =>
    [x + 50 + share * (width - 70), y + 20 + (1 - Math.exp(-3 * share)) * (height - 80)] as const;
  await system.page.mouse.move(...at(0));
  await system.page.mouse.down();
  for (let i = 1; i <= 20; i++) await system.page.mouse.move(...at(i / 20));
  await system.page.mouse.up();
}

test('a guide is followed beside the notebook: sketched, answered, linked to the sheet and checked; all of it is kept', async () => {
  await hand.openCopy(system.site, 'Beacon');
  await toNotebook(hand);
  await hand.element('.guide-item');
  await drawFalling();
  await hand.element('canvas[aria-label^="A sketch of U against t from 0"]');
  expect(await pixelsLike(lilac)).toBeGreaterThan(150);
  const before = await pixelsLike(ink);
  await hand.pick('Lay what was measured over the sketch', 'Over run 1');
  let after = before;
  for (const end = Date.now() + 40_000; Date.now() < end && after <= before + 80;)
    after = await pixelsLike(ink);
  expect(after).toBeGreaterThan(before + 80);

  const linked = 'The time constant by the curve';
  await pressIn(hand, linked, 'Choose from the workings');
  await hand.element('.modal .list-group-item');
  await hand.pick('Run', 'Run 1');
  await (await hand.element('input[aria-label="Search values"]')).type('time constant of');
  // What another run has is worked out first.
  await hand.element(
    '::-p-xpath(//*[contains(@class,"modal")]//*[contains(@class,"list-group-item") and contains(.,"time constant of")])',
  );
  await system.page.keyboard.press('Enter');
  await untilSaid(system.page, linked, 'time constant of τ = 1.0');
  await pressIn(hand, linked, 'Check');
  await untilSaid(system.page, linked, 'Right.');

  const share = 'After one time constant';
  const answer = async (text: string) => {
    await hand.type('Answer to After one time constant, so much of the voltage is left', text);
    await pressIn(hand, share, 'Check');
  };
  await answer('37');
  await untilSaid(system.page, share, 'Type the unit too, such as %.');
  await answer('50 %');
  await untilSaid(system.page, share, 'Not yet.');
  await answer('36.788 %');
  await untilSaid(
    system.page,
    share,
    'The value is right. Write it with 2 to 3 significant digits; this has 5.',
  );
  await answer('0.368');
  await untilSaid(system.page, share, 'Type the unit too');
  await answer('36.8 %');
  await untilSaid(system.page, share, 'Right.');

  const straight = 'ln U against time';
  await (await hand.element('#straight-o2')).click();
  await pressIn(hand, straight, 'Check');
  await untilSaid(system.page, straight, 'Right.');
  const why = 'textarea[aria-label^="Answer to Compare the time constant"]';
  await (await hand.element(why)).type('They agree within the tolerance of the capacitor.');
  expect(await barriersOn(system.page)).toEqual([]);
  await stored(system.page);

  await system.page.reload({ waitUntil: 'load' });
  await untilSaid(system.page, straight, 'Right.');
  expect(await saidBy(system.page, linked)).toContain('time constant of τ = 1.0');
  expect(await saidBy(system.page, share)).toContain('Right.');
  expect(
    await hand.element(why).then((area) => area.evaluate((it) => (it as HTMLTextAreaElement).value)),
  ).toBe('They agree within the tolerance of the capacitor.');
  await hand.element('canvas[aria-label^="A sketch of U against t from 0"]');
  expect(await saidBy(system.page, shown)).toContain('Before you record');

  // They stand in the notebook, and leave the room with it.
  await hand.press('Answers to the guide', '.new-blocks');
  const answered = async () =>
    (await wordsOf(system.page, '.results-block tbody tr')).map((row) => row.replace(/^\d+\. /, ''));
  await hand.element('.answered-sketch canvas');
  await system.page.waitForFunction(
    () => document.querySelectorAll('.results-block tbody tr')[1]?.textContent.includes('±') === true,
    { polling: 50, timeout: 40_000 },
  );
  const rows = await answered();
  expect(rows).toHaveLength(5);
  expect(rows[0]).toMatch(/as it discharges sketched, see below$/);
  expect(rows[1]).toMatch(/^The time constant by the curve 1\.0\d+ ± 0\.0\d+ s$/);
  expect(rows[2]).toMatch(/36\.8 %$/);
  expect(rows[3]).toMatch(/−1\/τ$/);
  expect(rows[4]).toMatch(/They agree within the tolerance of the capacitor\.$/);
  await stored(system.page);
  await hand.press('Save');
  await hand.item('Save as one page (HTML)');
  const html = readFileSync(await downloaded(system.downloads, '.html'), 'utf8');
  for (const part of ['They agree within the tolerance of the capacitor.', '36.8 %', '−1/τ'])
    expect(html).toContain(part);
  expect(html.match(/<img[^>]+src="data:image\/jpeg;base64,/g)).toHaveLength(1);
});

test('the last answer is taken back by a step, and comes again', async () => {
  await hand.openCopy(system.site, 'Beacon');
  await toNotebook(hand);
  await (await hand.element('#straight-o1')).click();
  await hand.element('#straight-o1:checked');
  await (await hand.element('#straight-o4')).click();
  await hand.element('#straight-o4:checked');
  await hand.pressLabelled('Undo');
  await hand.element('#straight-o1:checked');
  await hand.pressLabelled('Redo');
  await hand.element('#straight-o4:checked');
});

test('a guide is written with keys; what readings tick and what is right is in it, and others read what was written', async () => {
  await hand.begin(system.site, 'Our own guide', ['V1-B']);
  await toNotebook(hand);
  await hand.pressLabelled('Guide: show or fold away');
  await hand.press('Write a guide');
  await hand.press('Add a step or a question');
  await hand.item('Step');
  await system.page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Step 1', {
    polling: 50,
    timeout: 40_000,
  });
  await system.page.keyboard.type('Charge it');
  await system.page.keyboard.press('Tab');
  await system.page.keyboard.type('Wait **ten** seconds: $5 RC$ is enough.\n\n- look\n- wait');
  await hand.press('Check');
  await hand.item('A sensor is connected');
  await hand.press('Check');
  await hand.item('The rate is enough');
  await hand.type('The rate is enough: readings a second', '200');
  await hand.press('Add a step or a question');
  await hand.item('Question: number');
  await hand.type('Question 2', 'How long is R·C?');
  await hand.type('Unit', 's');
  await hand.type('What is right', '1030 ms');
  await hand.type('Tolerance', '0.05');
  await hand.press('Done');
  await untilSaid(system.page, 'Charge it', 'Wait ten seconds');
  expect(
    await system.page.$$eval('.guide-text li', (items) => items.map(({ textContent }) => textContent)),
  ).toEqual(['look', 'wait']);
  expect(await system.page.$('.guide-text strong')).not.toBeNull();
  expect(await system.page.$eval('.guide-text .katex-mathml', (math) => math.textContent)).toContain('R');
  // The sensor is there; its rate is not enough until the plan says so.
  await untilSaid(system.page, 'Charge it', 'U is read at least 200 times a second. It takes');
  expect(await system.page.$$eval('.guide-checks .met', (met) => met.length)).toBe(1);
  await hand.press('Bench', 'nav');
  await hand.element('.side.right .side-head');
  await atRest(system.page);
  await hand.pressLabelled('Guide');
  await hand.plan('Rate', () => hand.type('Sample rate of V1-B, U, I', '500 Hz'));
  await system.page.waitForFunction(() => document.querySelectorAll('.guide-checks .met').length === 2, {
    polling: 50,
    timeout: 40_000,
  });
  // Written on the bench too, and taken back step by step.
  await hand.press('Change');
  await hand.menu('More for 2', 'Remove');
  await system.page.waitForFunction(() => document.querySelectorAll('.guide-item').length === 1, {
    polling: 50,
    timeout: 40_000,
  });
  await hand.pressLabelled('Undo');
  await hand.press('Done');
  await untilSaid(system.page, 'How long is R·C?', 'How long is R·C?');
  await hand.type('Answer to How long is R·C?', '1.0 s');
  await pressIn(hand, 'How long is R·C?', 'Check');
  await untilSaid(system.page, 'How long is R·C?', 'Right.');
});

test('a template brings its guide, and a step sets plan, rate and page up', async () => {
  await hand.begin(system.site, 'Beacon by a guide', ['V1-B']);
  await hand.template('RC');
  const guide = async () => {
    if ((await system.page.$('.guide-item')) === null) await hand.pressLabelled('Guide');
  };
  await guide();
  const record = 'Let it discharge';
  await untilSaid(system.page, record, '1 run is recorded');
  await pressIn(hand, record, 'Set up the bench for this step');
  await hand.waitForText('Take 100 readings a second');
  await hand.waitForText(/Begin\s+when U falls through 4.8 V, keeping 0.5 s from before/);
  await hand.waitForText(/End\s+after 6 s/);
  // It can be taken back; the rate was as the step wants it.
  await hand.pressLabelled('Undo');
  await hand.waitForText(/Begin\s+when pressed/);
  await pressIn(hand, record, 'Set up the bench for this step');
  await hand.waitForText(/End\s+after 6 s/);
  await lab.stage.press('Throw the switch');
  // Charged in five to seven times R·C.
  await hand.waitForText(/\b(4\.9[5-9]|5\.0)\d*\s*V/);
  await hand.recordWhen(() => lab.stage.press('Throw the switch'));
  await system.page.waitForFunction(
    (title: string) =>
      [...document.querySelectorAll('.guide-item')]
        .find((item) => item.querySelector('h3')?.textContent.includes(title))
        ?.querySelector('.guide-checks .met') instanceof Element,
    { polling: 50, timeout: 40_000 },
    record,
  );
});
