import { mkdirSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { type ElementHandle } from 'puppeteer-core';
import { BenchHand } from '../e2e/support/bench';
import { quote, stored, toBench, toNotebook, write } from '../e2e/support/notebook';
import { StageHand } from '../e2e/support/stage';
import { type System, startSystem } from '../e2e/support/system';
import { buildAll } from './build';
import { startCluster } from './cluster';
import { runScript, say } from './plain';
import { withSites } from './testing/siteKeeper';

/** Where the pictures go; another folder is named to compare them with “npm run pictures:compare”. */
const folder = process.argv[2] ?? 'docs/screenshots';

/** Made-up readings of a tow line, as a spreadsheet with decimal commas writes them. */
const towRows = () =>
  Array.from({ length: 120 }, (_, i) => {
    const t = i * 0.05;
    return [t, 3.2 * (1 - Math.exp(-t)) + 0.1 * Math.sin(9 * t), 40 + 8 * Math.sin(2 * t)]
      .map((value) => value.toFixed(3).replace('.', ','))
      .join(';');
  }).join('\n');

/** A notebook as a group writes it: what was expected, a picture, a sentence with its numbers, a table. */
async function writeNotebook({ page }: System, hand: BenchHand): Promise<void> {
  await (await hand.element('::-p-xpath(//a[contains(., "Channel buoy")])')).click();
  await hand.element('.groups[aria-busy="false"] .card-value .btn-number');
  await toNotebook(hand);
  const heading = {
    Group: 'Terns',
    Names: 'Ilse, Marek',
    Class: '11a',
    'Title of the notebook': 'Which spring swings faster?',
  };
  for (const [label, text] of Object.entries(heading)) await hand.type(label, text);
  await write(hand, 'We expected the stiffer spring to have the shorter period, since it pulls back harder.');
  await stored(page);
  await toBench(hand);
  await hand.pressLabelled('Show only the trace of x');
  await pause(600);
  await page.keyboard.press('n');
  await hand.waitForText('What you see is pinned to the notebook.');
  await hand.pressLabelled('Dismiss');
  await hand.pressLabelled('Show all traces');
  await toNotebook(hand);
  await hand.type('Title of what is pinned', 'Soft and stiff spring');
  await write(hand, 'The soft spring took ');
  await quote(hand, 'period', 'Run 1');
  await page.keyboard.type(' for a swing, the stiff one ');
  await quote(hand, 'period', 'Run 3');
  await page.keyboard.type('.');
  await stored(page);
  await page.$eval('.notebook-scroll', (sheet) => sheet.scrollTo(0, 0));
}

/** A guide as a group follows it: a sketch with what was measured over it. */
async function followGuide(hand: BenchHand): Promise<void> {
  await (await hand.element('::-p-xpath(//a[contains(., "Beacon")])')).click();
  await hand.element('.groups[aria-busy="false"] .card-value .btn-number');
  await toNotebook(hand);
  await (await hand.element('.guide-item details summary')).click();
  const falls = Array.from({ length: 12 }, (_, i) => `${0.4 * i} ${(5 * Math.exp(-0.35 * i)).toFixed(2)}`);
  await hand.type('Points of the sketch', falls.join('; '));
  await hand.pick('Lay what was measured over the sketch', 'Over run 1');
  await (await hand.element('.guide-item details summary')).click();
  await stored(hand.page);
  await pause(800);
}

/** Takes the pictures, in the real application. */
async function takeAll(): Promise<void> {
  const system = await startSystem({ own: true, demo: true, pace: 1 });
  const hand = new BenchHand(system.page);
  const { page } = system;
  const take = async (name: string) => {
    await pause(600);
    await page.screenshot({ path: `${folder}/${name}.png` });
    say(`${folder}/${name}.png`);
  };
  try {
    await system.open(`/sign-in/${await system.signInToken()}`);
    await hand.waitForText('Channel buoy: soft and stiff spring');
    // Small pictures are asked for by those who see them.
    await page.waitForFunction(() =>
      [...document.querySelectorAll('.preview')].every((picture) => picture.childElementCount > 0),
    );
    await take('home');
    await (await hand.element('::-p-xpath(//a[contains(., "where its energy goes")])')).click();
    await hand.element('[data-entry="loss-fast"] .card-value .btn-number');
    await page.$eval('[data-entry="tilt"]', (card) => card.scrollIntoView());
    await take('template');
    await system.open('/');
    await (await hand.element('::-p-xpath(//a[contains(., "four snatches")])')).click();
    await hand.press('Trials', 'nav[aria-label="Pages"]');
    await hand.element('[data-entry="held"] .card-value .btn-number');
    await take('trials');
    await system.open('/');
    await writeNotebook(system, hand);
    await take('notebook');
    await page.goto(system.site, { waitUntil: 'load' });
    await followGuide(hand);
    await take('guide');
    await system.open('/');
    await hand.waitForText('Channel buoy: soft and stiff spring');
    const stage = await system.newPage('/stage');
    const onStage = async (apparatus: string, title: string, text: string) => {
      await stage.bringToFront();
      if (!stage.url().endsWith(`/stage/${apparatus}`))
        await stage.goto(`${system.site}/stage/${apparatus}`, { waitUntil: 'load' });
      const button = await stage.waitForSelector(
        `[aria-label="${title}"] ::-p-xpath(.//button[normalize-space()="${text}"])`,
      );
      await button?.click();
      await pause(150);
    };
    await (await hand.element('::-p-xpath(//a[contains(., "Channel buoy")])')).click();
    await hand.result('sine through x', 'period');
    await hand.connect('K7-D');
    await hand.press('Zero');
    await hand.waitForText('Zeroed less than a minute ago', 8000);
    await page.mouse.move(596, 260);
    await take('bench-workings');
    await page.mouse.click(380, 230);
    await page.keyboard.down('Shift');
    await page.mouse.click(640, 230);
    await page.keyboard.up('Shift');
    await page.click('#cursor-tangent');
    await take('cursors');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await hand.press('Traces');
    await hand.item('New page of traces');
    await hand.horizontal('x');
    await hand.pressLabelled('Set up the trace of a');
    await hand.item('Take this trace off the page');
    await page.mouse.move(40, 600);
    await pause(600);
    await hand.horizontal('t');
    await page.waitForFunction(() => document.querySelector('[aria-label^="Axis of t:"].level') !== null);
    await page.keyboard.press('Escape');
    await page.keyboard.press('d');
    await take('digits');
    await page.keyboard.press('Escape');
    await page.keyboard.press('t');
    await page.mouse.click(500, 300);
    await take('table');
    await page.keyboard.press('Escape');
    await page.keyboard.press('t');
    await hand.pressLabelled('Remove Page 2');
    await hand.menu('More for the swing', 'Choose another relation');
    await hand.element('[data-relation]');
    await pause(400);
    await take('relations');
    await hand.pressLabelled('Close');
    await hand.press('Work out');
    await hand.item('Series by a formula');
    await (await hand.element('input[aria-label="Formula"]')).click();
    await page.keyboard.type('E = 1/2 m v^2 + 1/2 k x');
    await hand.press('Make m a constant');
    await hand.type('Value of m', '0.25');
    await hand.type('Uncertainty of m', '0.002');
    await hand.type('Unit of m', 'kg');
    await hand.press('Make k a constant');
    await hand.type('Value of k', '7');
    await hand.type('Unit of k', 'N/m');
    await hand.waitForText('they cannot be added');
    const fault = await hand.element('::-p-xpath(//*[contains(text(), "they cannot be added")])');
    await fault.evaluate((words) => words.closest('.result-card')?.scrollIntoView({ block: 'end' }));
    await pause(400);
    await page.keyboard.press('Escape');
    await hand.menu('More for E', 'Remove');
    await hand.menu('More for m', 'Remove');
    await hand.menu('More for k', 'Remove');
    await hand.pressLabelled('Set up K7-D');
    await take('set-up');
    await hand.pressLabelled('Close the set-up');
    await hand.beginAt('x', 'rises through', '1 cm');
    await hand.plan('Repetition', () => hand.choose('times-some'));
    await page.keyboard.press('Space');
    await hand.waitForText('is armed');
    await pause(6000);
    await hand.press('Cancel', '.waiting-view');
    await hand.plan('Beginning', () => hand.choose('begin-pressed'));
    await hand.plan('Repetition', () => hand.choose('times-once'));
    await page.setViewport({ width: 1024, height: 768 });
    await hand.element('aside.side.right .result-card');
    await take('bench-tablet');
    await page.setViewport({ width: 1280, height: 800 });
    await pause(600);
    const file = join(system.downloads, 'tow.csv');
    writeFileSync(file, `t / s;F / N;U / mV\n${towRows()}\n`);
    const chooser = await page.waitForSelector('input[type=file]');
    await (chooser as ElementHandle<HTMLInputElement>).uploadFile(file);
    await hand.waitForText('rows, UTF-8');
    await take('import');
    await hand.press('Cancel', '.modal');
    await pause(500);
    await onStage('buoy', 'Channel buoy on its spring', 'Pull it down and hold');
    await onStage('buoy', 'Channel buoy on its spring', 'Let go');
    await page.bringToFront();
    await page.keyboard.press('Space');
    await hand.waitForText('Space stops');
    await pause(5200);
    await take('bench-recording');
    await onStage('mooring', 'Boat on its mooring line', 'Push it off');
    await pause(700);
    await stage.screenshot({ path: `${folder}/stage.png` });
    say(`${folder}/stage.png`);
    await otherWays(system, hand, take);
  } finally {
    await system.close();
  }
}

/** Takes the pictures of the documentation from the demo data. */
runScript(async (ending) => {
  await buildAll();
  mkdirSync(folder, { recursive: true });
  const cluster = await startCluster(resolve('.test-data'), { durable: false, signal: ending });
  try {
    await withSites(cluster.address, async (environment) => {
      Object.assign(process.env, environment);
      await takeAll();
    });
  } finally {
    await cluster.stop();
  }
  process.exit(0);
});

const go = 'Let it go, throw it, spin it';

/** The ways of recording beside the one against time. */
async function otherWays(
  system: System,
  hand: BenchHand,
  take: (name: string) => Promise<void>,
): Promise<void> {
  const hands = await StageHand.open(system, 'gate');
  const way = async (title: string) => {
    await hand.pressLabelled('Way of recording: Against time');
    await hand.item(title);
    await pause(300);
  };
  await hands.set('What passes', 1);
  await hand.begin(system.site, 'Signal ball through the light gate', ['G2-T']);
  await hand.press('End when stopped');
  await hand.press('a flag or a ball');
  await hand.type('length of the flag', '40 mm');
  await hand.press('Record');
  await hand.waitForText('Nothing has passed yet');
  for (let i = 0; i < 6; i++) {
    await hands.press(i === 3 ? 'Put a finger through beam A' : go);
    await pause(900);
  }
  await take('gate');
  await hand.press('Stop');
  await hand.waitForText('is ready');

  await hands.show('rail');
  await hand.begin(system.site, 'Field against distance', ['F7-B']);
  await way('Spot readings');
  for (const symbol of ['By', 'Bz']) {
    await hand.pressLabelled(`What is read of ${symbol}`);
    await hand.item('not read');
    await pause(300);
  }
  await hand.pressLabelled('New column');
  await (await hand.element('input[aria-label="Name of the column"]')).type('r');
  await (await hand.element('input[aria-label="Unit of the column"]')).type('cm');
  await hand.press('Add the column');
  for (const distance of [20, 3, 12, 8, 5, 4]) {
    await hands.set('Distance from the tip', distance / 100);
    await pause(300);
    await hand.type('r of the next reading', String(distance));
    await pause(1900);
  }
  await take('spots');

  await hands.show('walker');
  await hand.begin(system.site, 'Following a line', ['K9-W']);
  await way('Following a line');
  await hand.press('Make a line');
  await hand.type('Number of the line', '4821');
  await hand.waitForText('Begin at');
  await hand.press('Record');
  await hand.waitForText('Recording run', 8000);
  const step = (key: string) =>
    hands.page.$eval(
      '.grabbable',
      (element, pressed) =>
        element.dispatchEvent(new KeyboardEvent('keydown', { key: pressed, bubbles: true })),
      key,
    );
  for (let i = 0; i < 6; i++) await step('ArrowLeft');
  await pause(4300);
  for (let i = 0; i < 14; i++) {
    await step('ArrowRight');
    await pause(190);
  }
  await take('pace');
  await hand.waitForText('is ready', 12_000);

  await hand.begin(system.site, 'On the quay', ['Q8-P']);
  await way('Away from the computer');
  await hand.type('Seconds of the run away', '300');
  await hand.press('Start it');
  await hand.waitForText('It may be carried off');
  await pause(6000);
  await take('away');
  await hand.press('Fetch and end');
  await hand.waitForText('Nothing is kept by a device', 15_000);
}
