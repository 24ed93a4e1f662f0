import { gravity } from '@heuristor/stand-ins';
import { type Lab, openLab, share } from './support/lab';

// Sensors that err, and plans that cannot be carried out, through the real interface.

let lab: Lab;
let system: Lab['system'];
let hand: Lab['hand'];
let stage: Lab['stage'];

beforeAll(async () => {
  lab = await openLab('buoy');
  ({ system, hand, stage } = lab);
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

/** Where a target rests, and the places of readings that are far from there, though within the limits. */
function restAndStrays(values: readonly number[]): { rest: number; strays: number[]; isPlain: boolean } {
  const rest = [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
  const off = values.map((x) => Math.abs(x - rest));
  const strays = [...off.keys()].filter((i) => off[i] > 0.05 && values[i] < 6);
  const edges = [0, ...strays, values.length - 1];
  const isApart = edges.every((place, i) => i === 0 || place - edges[i - 1] > 8);
  // Some are so near that only their neighbours’ noise could tell; chance brings a run without those soon.
  const isClear = off.every((distance) => distance < 0.002 || distance > 0.05);
  return { rest, strays, isPlain: strays.length > 1 && isApart && isClear };
}

test('wrong echoes are marked where they were read, left out of every number, and counted again if wished', async () => {
  await stage.show('buoy');
  await stage.press('Bring to rest');
  await stage.errorsOf('K7-D');
  await stage.set('Echoes of x from something else', 1.5);
  await hand.begin(system.site, 'Wrong echoes', ['K7-D']);
  await hand.lengthOfRun('4');
  let run = 0;
  let seen = { rest: 0, strays: [0], isPlain: false };
  while (!seen.isPlain && run < 12) {
    await hand.record();
    run++;
    seen = restAndStrays((await hand.runs())[run - 1].channels[0].values);
  }
  await stage.press('Usual errors');
  expect(seen.isPlain).toBe(true);
  await hand.waitForText('× a wrong echo');
  await hand.mark(0.02, 3.98);
  await hand.offer('x', 'mean');
  const mean = await hand.result('mean of x', 'mean');
  expect(Math.abs(mean.value - seen.rest)).toBeLessThan(0.0001);
  expect((await hand.result('mean of x', 'sd')).value).toBeLessThan(0.0004);
  expect(await hand.shownText('mean of x')).toMatch(/readings are missing or no measurement/);
  await hand.menu(`More for run ${run}`, 'How it was recorded');
  await hand.waitForText(`${seen.strays.length} wrong echoes`);
  await hand.pressLabelled('Close');
  await hand.menu(`More for run ${run}`, 'Count limits and wrong echoes too');
  await system.page.waitForFunction(
    (selector: string) =>
      Number(document.querySelector(selector)?.getAttribute('title')?.split(' ')[2]) > 0.004,
    { timeout: 40_000, polling: 100 },
    '[aria-label="mean of x"] .results [data-result="sd"] span[title]',
  );
  await hand.menu(`More for run ${run}`, 'Leave out limits and wrong echoes');
  await hand.waitForText('× a wrong echo');
});

test('the boat with encoder and hook is pushed up a slope and comes down: g (sin θ ± μ cos θ) within 2 %, and nothing pulls at its hook', async () => {
  await stage.show('trolley');
  await stage.set('String over the pulley', 0);
  await stage.set('Rise of the track', 5);
  await stage.set('Rolling friction', 0.01);
  await stage.press('Bring it back and hold');
  await hand.begin(system.site, 'Up and down', ['K5-C']);
  await hand.zero();
  await hand.beginAt('x', 'rises through', '2 cm', '0.2');
  await hand.endAt('x', 'falls through', '2 cm');
  await hand.recordWhen(() => stage.press('Push it along'));
  const [run] = await hand.runs();
  const { values } = run.channels[0];
  expect(values[values.length - 1]).toBeLessThan(0.03);
  const top = values.indexOf(Math.max(...values)) * 0.02 - 0.2;
  const slope = (5 * Math.PI) / 180;
  for (const [region, from, to, sign] of [
    ['A', 0.05, top - 0.1, 1],
    ['B', top + 0.1, 2 * top - 0.15, -1],
  ] as const) {
    await hand.mark(from, to);
    await hand.offer('x', 'parabola');
    const { value } = await hand.result(
      'parabola through x',
      'curvature',
      `[aria-label="On region ${region}"]`,
    );
    expect(share(-value, gravity * (Math.sin(slope) + sign * 0.01 * Math.cos(slope)))).toBeLessThan(0.02);
  }
  await hand.offer('F', 'mean');
  expect(Math.abs((await hand.result('mean of F', 'mean')).value)).toBeLessThan(0.005);
});

test('a run that would begin past its end is refused, with what would do; what comes after it can be recorded', async () => {
  await stage.show('lifeboat');
  await hand.begin(system.site, 'Past its end', ['K3-L']);
  await hand.beginAt('x', 'rises through', '1.5 m');
  await hand.endAt('x', 'rises through', '90 cm');
  await hand.waitForText('A run would begin when x is past the level at which it is to end.');
  await system.page.keyboard.press('Space');
  await hand.waitForText('is past 0.9 m already, at which it is to end');
  await hand.endAt('x', 'falls through', '90 cm');
  await system.page.keyboard.press('Space');
  await hand.waitForText('is armed');
  await hand.press('Cancel');
});

test('a sensor whose limits are drawn in comes back with them', async () => {
  await stage.show('cord');
  await hand.begin(system.site, 'Limits', ['C6-F']);
  await stage.errorsOf('C6-F');
  await stage.set('Limits of F, times its usual', 0.05);
  await hand.pressLabelled('Set up C6-F');
  await hand.waitForText('2.5 N');
  await stage.press('Usual errors');
  await system.pass(0.5);
});
