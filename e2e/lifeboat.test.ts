import { type HTTPRequest, type Page } from 'puppeteer-core';
import { gravity } from '@heuristor/stand-ins';
import { BenchHand, firstTime } from './support/bench';
import { type System, startSystem } from './support/system';

let system: System;
let hand: BenchHand;
let stage: Page;

beforeAll(async () => {
  system = await startSystem({ own: true, pace: 1 });
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
  await hand.type('Name of the new investigation', 'Lifeboat');
  await hand.connect('K3-L');
  stage = await system.newPage('/stage/lifeboat');
});
afterAll(() => system.close());

/** A press on the Stage, which stays behind: runs are compared by when the boat was let go, and changing pages takes its time. */
const onStage = async (text: string) => {
  await stage.evaluate((wanted: string) => {
    const buttons = document.querySelectorAll<HTMLElement>(
      '[aria-label="Model lifeboat on its slipway"] button',
    );
    [...buttons].find(({ innerText }) => innerText.trim() === wanted)?.click();
  }, text);
  await system.pass(0.1);
};

/** From well after the boat was let go to before the derivative feels the buffer, in every run: nobody lets go at the same moment twice. */
async function slide(): Promise<[from: number, to: number]> {
  let [from, to] = [0, Infinity];
  for (const { channels } of await hand.runs()) {
    from = Math.max(
      from,
      firstTime(channels[0], (x) => x > 0.4 && x < 2),
    );
    to = Math.min(
      to,
      firstTime(channels[0], (x) => x > 1.9 && x < 2.1),
    );
  }
  expect(to - from).toBeGreaterThan(0.6);
  return [from, to];
}

test('three runs of the lifeboat give g sin θ − friction within 1 %, from position and from velocity', async () => {
  await hand.lengthOfRun('6');
  for (let run = 0; run < 3; run++) {
    await onStage('Hold it at the top');
    await system.page.bringToFront();
    await system.page.keyboard.press('Space');
    await hand.waitForText('Space stops');
    await onStage('Let go');
    await system.page.bringToFront();
    await system.page.waitForFunction(
      (count: number) =>
        document.querySelectorAll('.chip').length === count && document.querySelector('.chip .rec') === null,
      { timeout: 40_000 },
      run + 1,
    );
  }
  await hand.press('Work out');
  await hand.item('Derivative of x');
  await hand.mark(...(await slide()));
  await hand.takeOffer('parabola', true);
  await (
    await hand.element('.offers select')
  ).select(
    await system.page.$eval(
      '.offers select',
      (select) => [...(select as HTMLSelectElement).options].find(({ text }) => text === 'v')?.value ?? '',
    ),
  );
  await hand.takeOffer('slope', true);
  const angle = (6 * Math.PI) / 180;
  const truth = gravity * (Math.sin(angle) - 0.01 * Math.cos(angle));
  const path = await hand.result('parabola through x', 'curvature');
  const slope = await hand.result('slope of v', 'slope');
  for (const { value } of [path, slope, ...(await hand.otherResults('slope of v'))])
    expect(Math.abs(value / truth - 1)).toBeLessThan(0.01);
  expect(await hand.shownText('parabola through x')).toMatch(/0\.\d+ ± 0\.\d+ m\ss−2/);
});

test('the area under v is the distance run down', async () => {
  await hand.takeOffer('area', true);
  const { value } = await hand.result('area under v', 'area');
  await hand.press('Work out');
  await hand.item('Running integral of v');
  await hand.waitForText('∫ v d t');
  expect(value).toBeGreaterThan(0.3);
  expect(value).toBeLessThan(1.9);
});

/** While `work` is done, what the page changes on the server is half a second on its way. */
async function withSlowChanges(work: () => Promise<void>): Promise<void> {
  const hold = (request: HTTPRequest) => {
    if (request.method() === 'PATCH') setTimeout(() => void request.continue(), 500);
    else void request.continue();
  };
  await system.page.setRequestInterception(true);
  system.page.on('request', hold);
  await work();
  system.page.off('request', hold);
  await system.page.setRequestInterception(false);
}

test('a run has the length typed just before, goes on while its page is closed, and its readings are all there', async () => {
  await withSlowChanges(async () => {
    await hand.lengthOfRun('8');
    await system.page.keyboard.press('Space');
    await hand.waitForText('Space stops');
  });
  const url = system.page.url();
  await system.page.goto('about:blank');
  await system.pass(1.5);
  await system.page.goto(url, { waitUntil: 'load' });
  await hand.waitForText('Recording run 4');
  await hand.waitForText('Run 5 is ready');
  const id = url.split('/').pop();
  const missing = await system.page.evaluate(async (investigation: string | undefined) => {
    const { runs } = (await (await fetch(`/api/investigations/${investigation}`)).json()) as {
      runs: { channels: { id: number }[] }[];
    };
    const values = new Float64Array(
      await (await fetch(`/api/channels/${runs[3].channels[0].id}/values`)).arrayBuffer(),
    );
    return { count: values.length, missing: values.filter((value) => Number.isNaN(value)).length };
  }, id);
  expect(missing).toEqual({ count: 401, missing: 0 });
});

test('two seconds at 50 kHz: not a reading is lost', async () => {
  const bench = system.page.url();
  await hand.begin(system.site, 'Coil and capacitor', ['V2-L']);
  await hand.plan('Rate', () => hand.type('Sample rate of V2-L', '50 kHz'));
  await hand.waitForText('Take 50000 readings a second');
  await hand.lengthOfRun('2');
  await hand.record();
  const [{ channels, gaps, notes }] = await hand.runs();
  expect(channels[0].values.length).toBe(100_001);
  expect(channels[0].values.filter((value) => !Number.isFinite(value))).toEqual([]);
  expect([gaps, notes]).toEqual([[], []]);
  await system.page.goto(bench, { waitUntil: 'load' });
  await hand.nextIsReady();
});

test('killed in mid-run, the server has lost at most a quarter of a second, and says that the run was interrupted', async () => {
  await hand.lengthOfRun('30');
  await system.page.keyboard.press('Space');
  await hand.waitForText('Recording run 5');
  await system.pass(2.5);
  const killedAt = await system.killServer();
  await system.pass(0.3);
  await system.restartServer();
  await hand.waitForText('interrupted');
  const id = system.page.url().split('/').pop();
  const stored = await system.page.evaluate(async (investigation: string | undefined) => {
    const { runs } = (await (await fetch(`/api/investigations/${investigation}`)).json()) as {
      runs: { startedAt: string; state: string; channels: { id: number }[] }[];
    };
    const values = new Float64Array(
      await (await fetch(`/api/channels/${runs[4].channels[0].id}/values`)).arrayBuffer(),
    );
    return { count: values.length, startedAt: runs[4].startedAt, state: runs[4].state };
  }, id);
  expect(stored.state).toBe('interrupted');
  const lost = (killedAt - new Date(stored.startedAt).getTime()) / 1000 - stored.count / 50;
  expect(lost).toBeLessThan(0.25);
  // Sensors come back by themselves, and the next run can be recorded.
  await hand.waitForText('Run 6 is ready');
  expect(system.faults).toEqual([]);
});
