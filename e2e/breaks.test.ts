import { type Page } from 'puppeteer-core';
import { atRest } from './support/atRest';
import { BenchHand } from './support/bench';
import { type System, startSystem } from './support/system';

let system: System;
let hand: BenchHand;
let stage: Page;

beforeAll(async () => {
  system = await startSystem({ own: true, pace: 1 });
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
  await hand.begin(system.site, 'Breaks', ['K3-L']);
  stage = await system.newPage('/stage/lifeboat');
  await stage.waitForSelector('[aria-label^="Take it out of reach: K3-L"]');
});
afterAll(() => system.close());

const onStage = async (label: string) => {
  await stage.bringToFront();
  await (await stage.waitForSelector(`[aria-label^="${label}"]`))?.click();
  await system.page.bringToFront();
};

/** Records a run of so many seconds, during which something happens. */
async function recorded(seconds: number, meanwhile: () => Promise<void>) {
  await hand.lengthOfRun(String(seconds));
  await system.page.keyboard.press('Space');
  await hand.waitForText('Space stops');
  await system.pass(0.3);
  await meanwhile();
  await hand.waitForText('is ready');
  return (await hand.runs()).at(-1);
}

test('a sensor that is out of reach for three seconds sends what it read; the card says so, and the run has no gap', async () => {
  const run = await recorded(6, async () => {
    await onStage('Take it out of reach: K3-L');
    await hand.waitForText('Back within ten seconds, it sends what it has read');
  });
  expect(run?.gaps).toEqual([]);
  const { values } = run?.channels[0] ?? { values: [] };
  expect(values).toHaveLength(301);
  expect(values.filter(Number.isNaN)).toEqual([]);
});

test('a run that is over waits for it, and says for whom; then it is whole', async () => {
  const run = await recorded(3, async () => {
    await onStage('Take it out of reach: K3-L');
    await hand.waitForText('Waits for K3-L · Space ends it');
  });
  expect(run?.gaps).toEqual([]);
  expect(run?.channels[0].values).toHaveLength(151);
});

test('the space bar ends it at once, with what is missing marked', async () => {
  const run = await recorded(3, async () => {
    await onStage('Take it out of reach: K3-L');
    await hand.waitForText('Waits for K3-L');
    await system.page.keyboard.press('Space');
  });
  expect(run?.gaps).toHaveLength(1);
  await hand.waitForText('gap');
});

test('a plug that is pulled leaves a marked gap, as before', async () => {
  await system.page.waitForFunction(() => !document.body.innerText.includes('Not on the link'), {
    timeout: 40_000,
  });
  const run = await recorded(6, () => onStage('Pull its plug: K3-L'));
  expect(run?.gaps).toHaveLength(1);
  const [gap] = run?.gaps ?? [];
  expect(gap.to - gap.from).toBeGreaterThan(2);
  expect(gap.to - gap.from).toBeLessThan(5);
});

test('a file that is being brought in is still there when the server was killed meanwhile', async () => {
  const rows = Array.from({ length: 500 }, (_, i) => `${i / 10},${i % 7}`);
  await hand.offerFile(`${system.downloads}/kept.csv`, `t / s,U / V\n${rows.join('\n')}\n`);
  await hand.waitForText('500 rows');
  await system.killServer();
  await system.restartServer();
  await hand.waitForText('Reading …').catch(() => undefined);
  await hand.waitForText('500 rows');
  await atRest(system.page);
  await hand.press('Bring in as a run', '.modal');
  await hand.waitForText('· kept');
  expect((await hand.runs()).at(-1)?.channels[0].values).toHaveLength(500);
  expect(system.faults).toEqual([]);
});
