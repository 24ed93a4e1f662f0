import { gravity } from '@heuristor/stand-ins';
import { type Lab, openLab, share } from './support/lab';

// What passes a light gate, from connection to result, through the real interface, against what truly passed.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
let stage: Lab['stage'];

const go = 'Let it go, throw it, spin it';

beforeAll(async () => {
  lab = await openLab('gate', { own: true, demo: true });
  ({ system, hand, stage } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const passes = () =>
  system.page.$$eval('.passes tbody tr', (rows) => rows.map((row) => row.textContent ?? ''));
const waitForPasses = async (count: number) => {
  try {
    await system.page.waitForFunction(
      (wanted: number) => document.querySelectorAll('.passes tbody tr').length >= wanted,
      { timeout: 40_000, polling: 100 },
      count,
    );
  } catch {
    throw new Error(`${count} passes did not come, but ${JSON.stringify(await passes())}`);
  }
};
const largeNumber = async () =>
  Number(await system.page.$eval('[data-testid="last-pass"] .number', (element) => element.textContent));

/** The value of a constant on the sheet that the gate speaks of. */
const typeLength = (called: string, value: string) => hand.type(called, value);

test('a ball: nothing until it passes, then a speed a pass in large digits, mean and spread; a trembling finger is left out', async () => {
  await stage.set('What passes', 1);
  await hand.begin(system.site, 'Signal ball', ['G2-T']);
  await hand.waitForText('A clear');
  await hand.waitForText('this run ends after 8 s anyway');
  await hand.press('End when stopped');
  await hand.press('a flag or a ball');
  await hand.waitForText('Measure the length of the flag and type it above');
  await typeLength('length of the flag', '40 mm');
  await hand.waitForText('Press Record, then let it pass');
  await hand.press('Record');
  await hand.waitForText('Nothing has passed yet');
  for (let i = 1; i <= 4; i++) {
    await stage.press(go);
    await waitForPasses(i);
  }
  await stage.press('Put a finger through beam A');
  await hand.waitForText('left out: the beam flickered');
  await hand.press('Stop');
  await hand.waitForText('Run 2 is ready');
  expect(await passes()).toHaveLength(5);
  // The hand throws with 3 m/s and 3 %.
  expect(share(await largeNumber(), 3)).toBeLessThan(0.15);
  await hand.waitForText('± of the mean is sd/√n by Student’s t');
  const [run] = await hand.runs();
  expect(run.channels.map(({ key }) => key)).toEqual(['A', 'B']);
  const [{ values: edges }] = run.channels;
  expect(edges.slice(0, 4)).toEqual([1, 0, 1, 0]);

  // The caliper was read wrong: every speed follows.
  const before = await largeNumber();
  await typeLength('length of the flag', '80 mm');
  await system.page.waitForFunction(
    (old: number) =>
      Math.abs(Number(document.querySelector('[data-testid="last-pass"] .number')?.textContent) / old - 2) <
      0.002,
    { timeout: 40_000, polling: 100 },
    before,
  );
  await hand.saved();
});

test('it is all there after the server was killed and started again', async () => {
  const shown = await largeNumber();
  await system.killServer();
  await system.restartServer();
  await system.page.reload({ waitUntil: 'load' });
  await waitForPasses(5);
  expect(await largeNumber()).toBe(shown);
  // The gate itself comes back, too.
  await hand.waitForText('A clear');
});

test('a fence is dropped: the slope of v against t is g within 0.5 %', async () => {
  await stage.set('What passes', 0);
  await stage.set('Unsteadiness of the hand', 0);
  await hand.begin(system.site, 'Falling card', ['G2-T']);
  await hand.press('End when stopped');
  await hand.press('a barred card (fence)');
  await typeLength('spacing of the bars, front to front', '4 cm');
  await stage.press('Hold it ready');
  await hand.press('Record');
  await hand.waitForText('Nothing has passed yet');
  await stage.press(go);
  await waitForPasses(21);
  await system.pass(1.5);
  await hand.press('Stop');
  await hand.waitForText('Run 2 is ready');
  const [run] = await hand.runs();
  const [{ values }] = run.channels;
  expect(values).toHaveLength(16);
  await hand.press('Work out');
  await hand.item('Slope of A');
  const card = '[aria-label="slope of A"]';
  await hand.menu(`More for slope of A`, 'Change');
  await system.page.select(
    `${card} .entry-edit select`,
    await system.page.$eval(`${card} .entry-edit select`, (element) => {
      const options = [...(element as HTMLSelectElement).options];
      return options.find(({ textContent }) => textContent === 'v')?.value ?? '';
    }),
  );
  const { value, uncertainty } = await hand.result('slope of v', 'slope');
  expect(share(value, gravity)).toBeLessThan(0.005);
  expect(Math.abs(value - gravity)).toBeLessThan(3 * uncertainty);
  await hand.template('Falling fence');
  const [g] = await hand.named('g', 'slope');
  expect(share(g.value, gravity)).toBeLessThan(0.005);
});

test('a trolley rolls through two beams: speed at each, the time between, the acceleration', async () => {
  await stage.set('What passes', 2);
  await stage.set('Flags on the trolley', 1);
  await hand.begin(system.site, 'Trolley', ['G2-T']);
  await hand.press('End when stopped');
  await hand.press('a flag through two beams');
  await typeLength('length of the flag', '40 mm');
  await stage.press('Hold it ready');
  await hand.press('Record');
  await hand.waitForText('Nothing has passed yet');
  await stage.press(go);
  await waitForPasses(1);
  await hand.press('Stop');
  await hand.waitForText('Run 2 is ready');
  expect(share(await largeNumber(), gravity * Math.sin((3 * Math.PI) / 180))).toBeLessThan(0.01);
  // The first one of the two beams is chosen anew: it then passes only one.
  expect((await passes())[0]).toMatch(/^1\d/);
});

test('a bob: its period is that of the pendulum; what stood in the beam at the start is said', async () => {
  await stage.set('What passes', 3);
  await hand.begin(system.site, 'Sounding lead', ['G2-T']);
  await hand.press('End when stopped');
  await hand.press('a pendulum’s bob');
  await hand.waitForText('A blocked');
  await hand.press('Record');
  await system.pass(1.5);
  await stage.press(go);
  await waitForPasses(3);
  await hand.press('Stop');
  await hand.waitForText('Run 2 is ready');
  await hand.waitForText('the beam was blocked when the run began');
  const amplitude = (8 * Math.PI) / 180;
  const period = 2 * Math.PI * Math.sqrt(1 / gravity) * (1 + amplitude ** 2 / 16);
  expect(share(await largeNumber(), period)).toBeLessThan(1e-3);
});
