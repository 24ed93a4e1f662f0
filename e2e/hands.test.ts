import { signedIn } from './support/signedIn';
import { atRest } from './support/atRest';
import { barriersOn } from './support/barriers';
import { BenchHand } from './support/bench';
import { type System, until } from './support/system';

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterAll(() => system.close());

const barriers = () => barriersOn(system.page);

test('home, bench and stage put no serious barrier before anybody', async () => {
  expect(await barriers()).toEqual([]);
  await hand.openCopy(system.site, 'Channel buoy: soft and stiff spring');
  await hand.result('sine through x', 'period');
  expect(await barriers()).toEqual([]);
  const bench = system.page.url();
  await system.open('/stage/buoy');
  await hand.waitForText('Let go');
  expect(await barriers()).toEqual([]);
  await system.page.goto(bench, { waitUntil: 'load' });
  await hand.result('sine through x', 'period');
});

test('nothing of the bench scrolls at 1280 × 800', async () => {
  const overflow = await system.page.evaluate(
    () => document.documentElement.scrollHeight - window.innerHeight,
  );
  expect(overflow).toBeLessThanOrEqual(0);
});

test('a handle dragged with the mouse moves its end, the numbers follow on the way, and it is one step of undo', async () => {
  const before = await hand.result('sine through x', 'period');
  const handle = await hand.element('[aria-label="End of region A"][role="slider"]');
  const box = await handle.boundingBox();
  if (box === null) throw new Error('no handle');
  const { x, y } = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const seen = new Set<number>();
  await system.page.mouse.move(x, y);
  await system.page.mouse.down();
  for (let i = 1; i <= 8; i++) {
    await system.page.mouse.move(x - 15 * i, y);
    await atRest(system.page);
    seen.add((await hand.result('sine through x', 'period')).value);
  }
  await system.page.mouse.up();
  expect(seen.size).toBeGreaterThan(5);
  await hand.pressLabelled('Undo');
  await atRest(system.page);
  expect(await hand.result('sine through x', 'period')).toEqual(before);
});

test('the wheel looks closer about the pointer; “Frame data” shows all again', async () => {
  const overlay = await hand.element('[data-testid="overlay"]');
  const box = await overlay.boundingBox();
  if (box === null) throw new Error('no traces');
  await system.page.mouse.move(box.x + box.width * 0.9, box.y + box.height * 0.8);
  for (let i = 0; i < 8; i++) await system.page.mouse.wheel({ deltaY: -100 });
  await atRest(system.page);
  // The region ends at 6.8 s; looked at from about 5 s on, its start is out of sight.
  expect(await system.page.$('[aria-label="Start of region A"][role="slider"]')).toBeNull();
  await hand.pressLabelled('Frame data');
  await hand.element('[aria-label="Start of region A"][role="slider"]');
});

test('the pointer reads every trace at one moment', async () => {
  const overlay = await hand.element('[data-testid="overlay"]');
  const box = await overlay.boundingBox();
  if (box === null) throw new Error('no traces');
  await system.page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.3);
  await atRest(system.page);
  const readings = await system.page.$$eval('.cursor-value[data-reading]', (all) =>
    all.map((one) => one.textContent),
  );
  expect(readings.map((reading) => reading?.split(' ')[0])).toEqual(['x', 'v', 'a']);
});

test('P makes everything larger for the projector, and smaller again', async () => {
  const size = () => system.page.evaluate(() => parseFloat(getComputedStyle(document.body).fontSize));
  const usual = await size();
  await system.page.keyboard.press('p');
  await atRest(system.page);
  expect(await size()).toBeGreaterThan(usual * 1.2);
  await system.page.keyboard.press('p');
});

test('the lifeboat can be moved and let go with the keyboard alone', async () => {
  await system.open('/stage/lifeboat');
  const boat = await hand.element('[aria-label="Lifeboat: take it up the slipway and let go"]');
  const position = () => boat.evaluate((element) => Number(element.getAttribute('aria-valuenow')));
  await boat.evaluate((element) => (element as SVGElement).focus());
  await system.page.keyboard.press('ArrowRight');
  await system.page.waitForFunction(
    () => document.querySelector('[aria-label^="Lifeboat: "]')?.getAttribute('aria-valuenow') === '0.35',
    { timeout: 40_000 },
  );
  await system.page.keyboard.press('Enter');
  await until(position, (place) => place > 0.5);
});

test('the space bar records right after a sensor was chosen from its menu', async () => {
  await hand.openCopy(system.site, 'Channel buoy: soft and stiff spring');
  await hand.result('sine through x', 'period');
  await hand.connect('K7-D');
  await hand.lengthOfRun('60');
  // A hand that presses twice means it once.
  await system.page.evaluate(() => {
    for (let i = 0; i < 2; i++)
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', code: 'Space', bubbles: true }));
  });
  await hand.waitForText('Recording run 4');
  expect(await system.page.$$('.toast.show')).toHaveLength(0);
  await atRest(system.page);
  expect(await system.page.evaluate(() => document.body.innerText)).toContain('Recording run 4');
  await system.page.keyboard.press('Space');
  await hand.waitForText('Run 5 is ready');
});

test('two sheets of one investigation: the second screen takes over what the first one changes', async () => {
  await hand.openCopy(system.site, 'Lifeboat on the slipway: three tilts');
  await hand.result('parabola through x', 'curvature');
  const second = await system.newPage(new URL(system.page.url()).pathname);
  const other = new BenchHand(second);
  await other.result('parabola through x', 'curvature');
  await other.type('End of region A', '1.5');
  await other.saved();
  await system.page.bringToFront();
  await system.page.waitForFunction(
    () =>
      (document.querySelector('input[aria-label="End of region A"]') as HTMLInputElement | null)?.value ===
      '1.5',
    { timeout: 40_000, polling: 100 },
  );
  // The plan is one for all screens too: whoever presses Record sees what is going to happen.
  await other.lengthOfRun('4.5');
  await system.page.bringToFront();
  await hand.waitForText('after 4.5 s');
  await hand.lengthOfRun('3');
  await hand.pressLabelled('Undo');
  await hand.waitForText('after 4.5 s');
  await second.bringToFront();
  await other.waitForText('after 4.5 s');
  // Undo takes back what was done here, and never what another person has done.
  await system.page.bringToFront();
  const cards = () => system.page.$$eval('.result-card', (all) => all.length);
  const before = await cards();
  await hand.press('Work out');
  await hand.item('Running integral of x');
  await system.page.waitForFunction(
    (count: number) => document.querySelectorAll('.result-card').length === count + 1,
    {},
    before,
  );
  await hand.saved();
  await second.bringToFront();
  await other.waitForText('∫ x');
  await other.type('End of region A', '1.6');
  await other.saved();
  await system.page.bringToFront();
  const endIsTheirs = () =>
    system.page.waitForFunction(
      () =>
        (document.querySelector('input[aria-label="End of region A"]') as HTMLInputElement | null)?.value ===
        '1.6',
      { timeout: 40_000, polling: 100 },
    );
  await endIsTheirs();
  await hand.pressLabelled('Undo');
  await system.page.waitForFunction(
    (count: number) => document.querySelectorAll('.result-card').length === count,
    {},
    before,
  );
  await endIsTheirs();
  await second.close();
  expect(system.faults).toEqual([]);
});
