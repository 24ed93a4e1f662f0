import { join } from 'node:path';
import { type Page } from 'puppeteer-core';
import { atRest } from './support/atRest';
import { BenchHand } from './support/bench';
import { type System, startSystem } from './support/system';

let system: System;
let hand: BenchHand;
let bench: string;

beforeAll(async () => {
  system = await startSystem();
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.openCopy(system.site, 'Channel buoy: soft and stiff spring');
  await hand.result('sine through x', 'period');
  bench = new URL(system.page.url()).pathname;
});
afterAll(() => system.close());

const resize = async (width: number, height: number, page: Page = system.page) => {
  await page.setViewport({ width, height });
  await atRest(system.page);
};

/** Share of the page's area that the traces take. */
const shareOfTraces = () =>
  system.page.evaluate(() => {
    const { width, height } = document.querySelector('.traces')?.getBoundingClientRect() ?? {
      width: 0,
      height: 0,
    };
    return (width * height) / (innerWidth * innerHeight);
  });

/** Words of the recorder that do not fit where they stand. */
const cutWords = () =>
  system.page.$$eval('.recorder .status > *, .recorder .btn', (all) =>
    all
      .filter((element) => element.scrollWidth > element.clientWidth + 1 && element.clientWidth > 0)
      .map((element) => element.textContent),
  );

const overflow = () =>
  system.page.evaluate(() => [
    document.documentElement.scrollWidth - innerWidth,
    document.documentElement.scrollHeight - innerHeight,
  ]);

describe('the same bench on other screens', () => {
  afterAll(() => resize(1280, 800));

  test.each([
    [1280, 800, 0.4],
    [1024, 768, 0.42],
    [768, 1024, 0.35],
    [390, 844, 0.5],
  ])(
    'at %p × %p nothing scrolls, the recorder’s words are whole, and the graph is the largest thing',
    async (width, height, share) => {
      await resize(width, height);
      for (const beyond of await overflow()) expect(beyond).toBeLessThanOrEqual(0);
      expect(await cutWords()).toEqual([]);
      expect(await shareOfTraces()).toBeGreaterThan(share);
    },
  );

  test('on a tablet results and graph are seen together; a finger folds the sheet away for the graph', async () => {
    await resize(1024, 768);
    expect(await system.page.$('.offcanvas-backdrop')).toBeNull();
    const { value } = await hand.result('sine through x', 'period');
    expect(value).toBeGreaterThan(0.9);
    const [sheet, traces] = await system.page.$$eval('aside.side.right, .traces', (all) =>
      all
        .map((one) => one.getBoundingClientRect())
        .map(({ left, right, width }) => ({ left, right, width }))
        .sort((one, other) => other.left - one.left),
    );
    // Beside each other, and the sheet takes about a third.
    expect(traces.right).toBeLessThanOrEqual(sheet.left);
    expect(sheet.width / 1024).toBeGreaterThan(0.25);
    expect(sheet.width / 1024).toBeLessThan(0.36);
    await hand.pressLabelled('Workings: show or fold away');
    await atRest(system.page);
    expect(await shareOfTraces()).toBeGreaterThan(0.6);
    await hand.pressLabelled('Workings: show or fold away');
    await hand.result('sine through x', 'period');
  });

  test('the border of the sheet is moved by hand and by keys, and stays where it was put', async () => {
    await resize(1280, 800);
    const width = () =>
      system.page.$eval('aside.side.right', (sheet) => Math.round(sheet.getBoundingClientRect().width));
    const before = await width();
    const border = await hand.element('.side-border');
    const box = await border.boundingBox();
    if (box === null) throw new Error('no border');
    await system.page.mouse.move(box.x, box.y + 300);
    await system.page.mouse.down();
    await system.page.mouse.move(box.x - 100, box.y + 300, { steps: 5 });
    await system.page.mouse.up();
    await atRest(system.page);
    expect(await width()).toBeGreaterThan(before + 80);
    const wide = await width();
    await system.page.focus('.side-border');
    await system.page.keyboard.press('ArrowRight');
    await atRest(system.page);
    expect(await width()).toBeLessThan(wide);
    const set = await width();
    await system.page.reload({ waitUntil: 'load' });
    await hand.element('.result-card');
    await atRest(system.page);
    expect(Math.abs((await width()) - set)).toBeLessThan(3);
    await system.page.evaluate(() => localStorage.removeItem('sheet-width'));
    await system.page.reload({ waitUntil: 'load' });
    await hand.element('.result-card');
  });
});

describe('presenter size', () => {
  afterAll(async () => {
    await system.page.keyboard.press('p');
    await atRest(system.page);
  });

  test('makes axis numbers larger at once, keeps the recorder’s words whole, and columns fold away for the graph', async () => {
    await resize(1280, 800);
    const plotLeft = () =>
      system.page.$eval('[data-testid="overlay"]', (overlay) =>
        parseFloat((overlay as HTMLElement).style.left),
      );
    const before = await plotLeft();
    await system.page.keyboard.press('p');
    await atRest(system.page);
    expect(await plotLeft()).toBeGreaterThan(before * 1.2);
    expect(await cutWords()).toEqual([]);
    // The column of the sensors has folded by itself.
    const withoutSensors = await shareOfTraces();
    await hand.pressLabelled('Sensors and plan: show or fold away');
    await atRest(system.page);
    const withColumns = await shareOfTraces();
    expect(withoutSensors).toBeGreaterThan(withColumns * 1.2);
    await hand.pressLabelled('Sensors and plan: show or fold away');
    await hand.pressLabelled('Workings: show or fold away');
    await atRest(system.page);
    expect(await shareOfTraces()).toBeGreaterThan(withColumns * 1.5);
    await hand.pressLabelled('Workings: show or fold away');
    await atRest(system.page);
  });
});

describe('the sheet', () => {
  test('is read by regions: what is worked out on A stands under A', async () => {
    await hand.element('[aria-label="On region A"] .result-card');
    const inA = await system.page.$$eval('[aria-label="On region A"] .result-card', (cards) =>
      cards.map((card) => card.getAttribute('aria-label')),
    );
    expect(inA).toEqual(['sine through x', 'slope of a against x']);
  });

  test('ends typed in reverse are swapped, and a wrong one says what would be right', async () => {
    await hand.type('Start of region A', '7.5');
    await system.page.waitForFunction(
      () =>
        (document.querySelector('input[aria-label="End of region A"]') as HTMLInputElement).value === '7.5',
    );
    expect(
      await system.page.$eval(
        'input[aria-label="Start of region A"]',
        (field) => (field as HTMLInputElement).value,
      ),
    ).toBe('6.8');
    await hand.pressLabelled('Undo');
    await hand.type('End of region A', 'soon');
    await hand.waitForText('“soon” is no number. Type one like 1.25.');
    expect(
      await system.page.$eval('input[aria-label="End of region A"]', (field) =>
        field.getAttribute('aria-invalid'),
      ),
    ).toBe('true');
    await hand.type('End of region A', '6.8');
  });

  test('a refusal that all runs share is said once', async () => {
    await hand.type('End of region A', '1.21');
    await hand.waitForText('needs at least');
    const said = await system.page.$eval(
      '[aria-label="sine through x"]',
      (card) => (card as HTMLElement).innerText,
    );
    expect(said).toMatch(/(All|\d+) runs: A sine with its uncertainties/);
    expect(said.match(/needs at least/g)).toHaveLength(1);
    await hand.pressLabelled('Undo');
    await hand.result('sine through x', 'period');
  });

  test('the hover readout says of which run it speaks', async () => {
    const box = await (await hand.element('[data-testid="overlay"]')).boundingBox();
    if (box === null) throw new Error('no traces');
    await system.page.mouse.move(box.x + box.width * 0.4, box.y + box.height * 0.3);
    await atRest(system.page);
    const place = await system.page.$eval('.cursor-place', (element) => element.textContent);
    expect(place).toMatch(/(stiff|run 4) t = \d/);
  });

  test('two screens that change it at the same moment: a person says which one stays', async () => {
    await hand.saved();
    const second = await system.newPage(bench);
    const other = new BenchHand(second);
    await other.result('sine through x', 'period');
    // The first screen hears of nothing for a while, and both are changed.
    await system.page.setOfflineMode(true);
    await hand.type('End of region A', '6.1');
    await other.type('End of region A', '5.5');
    await other.saved();
    await system.page.setOfflineMode(false);
    await hand.waitForText(
      'These workings were changed on another screen while you changed them here.',
      20_000,
    );
    await hand.press('Keep mine');
    await hand.saved();
    await second.bringToFront();
    await second.waitForFunction(
      () =>
        (document.querySelector('input[aria-label="End of region A"]') as HTMLInputElement | null)?.value ===
        '6.1',
      { timeout: 40_000, polling: 100 },
    );
    await second.close();
  });
});

describe('a phone', () => {
  afterAll(() => resize(1280, 800));

  test('on a phone one can watch, record and read results', async () => {
    await resize(390, 844);
    await hand.pressLabelled('Sensors and plan: show or fold away');
    await hand.element('.offcanvas.show:not(.offcanvas-toggling)');
    await hand.connect('K7-D');
    await hand.pressLabelled('Close sensors');
    // The sheet slides away for a moment longer than its backdrop.
    await system.page.waitForFunction(
      () => document.querySelector('.offcanvas-backdrop, .offcanvas-toggling') === null,
    );
    await hand.lengthOfRun('1');
    await hand.press('Record');
    await hand.waitForText('Run 5 is ready');
    await hand.pressLabelled('Workings: show or fold away');
    await hand.element('.offcanvas.show:not(.offcanvas-toggling) .result-card');
    // It has slid in to its end, wherever its classes say that it is.
    await system.page.waitForFunction(() => {
      const box = document.querySelector('.offcanvas.show')?.getBoundingClientRect();
      return box !== undefined && box.right <= window.innerWidth + 0.5;
    });
    await hand.pressLabelled('Close workings');
  });
});

describe('thirty runs', () => {
  beforeAll(async () => {
    const blocks = Array.from({ length: 27 }, (_, i) => {
      const rows = Array.from({ length: 100 }, (_, k) => `${(k * 0.02).toFixed(2)},${Math.sin(k / 9 + i)}`);
      return `${i === 20 ? 'the odd one' : `trial ${i}`}\nt (s),x (m)\n${rows.join('\n')}\n`;
    });
    await system.open(bench);
    await hand.offerFile(join(system.downloads, '..', 'trials.csv'), blocks.join('\n'));
    await hand.press('Bring in as 27 runs', '.modal');
    await system.page.waitForSelector('.modal', { hidden: true });
    await system.open(bench);
    await hand.result('sine through x', 'period').catch(() => undefined);
  });

  const shown = () => system.page.$$eval('.chip:not(.hidden-run)', (chips) => chips.length);

  test('are found by name, and several are shown or hidden at once, which is one step of undo', async () => {
    await hand.element('::-p-xpath(//button[contains(., "runs, ")])').then((button) => button.click());
    await atRest(system.page);
    const search = await hand.element('input[aria-label="Search runs"]');
    await search.type('odd');
    await hand.press('Show only these');
    await system.page.waitForFunction(
      () => document.querySelectorAll('.chip:not(.hidden-run)').length === 1,
      {
        timeout: 40_000,
      },
    );
    expect(await system.page.$eval('.chip:not(.hidden-run)', (chip) => chip.textContent)).toContain(
      'the odd one',
    );
    await system.page.keyboard.press('Escape');
    await hand.pressLabelled('Undo');
    await system.page.waitForFunction(() => document.querySelectorAll('.chip:not(.hidden-run)').length > 20, {
      timeout: 40_000,
    });
    expect(await shown()).toBeGreaterThan(20);
  });
});

test('home finds an investigation by its name, with a small picture of its traces', async () => {
  await system.open('/');
  await hand.waitForText('Channel buoy');
  // They come one by one, after the list.
  await system.page.waitForFunction(() => document.querySelectorAll('.preview path').length >= 4);
  await (
    await hand.element('input[aria-label="Search investigations by name, theme, quantity or note"]')
  ).type('lifeboat on');
  // The demo’s, and what has been copied from it.
  await system.page.waitForFunction(() => {
    const names = [...document.querySelectorAll('.home-row strong')].map(({ textContent }) => textContent);
    return names.length > 0 && names.every((name) => name.startsWith('Lifeboat on the slipway'));
  });
});

test('signing out ends the live stream of every page of this browser', async () => {
  const second = await system.newPage(bench);
  await second.waitForSelector('.chip');
  await system.page.bringToFront();
  await hand.press('Sign out');
  await hand.waitForText('Please sign in');
  await second.bringToFront();
  await second.waitForFunction(() => document.body.innerText.includes('Please sign in'), {
    timeout: 40_000,
    polling: 100,
  });
  expect(system.faults).toEqual([]);
});
