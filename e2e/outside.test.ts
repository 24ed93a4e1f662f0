import { type ChildProcess, spawn } from 'node:child_process';
import { createWriteStream, existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BenchHand } from './support/bench';
import { type System, startSystem, until } from './support/system';

// Devices from outside: over a serial port, over the link from other programs, over HTTP, and a phone.

let system: System;
let hand: BenchHand;
const children: ChildProcess[] = [];

beforeAll(async () => {
  system = await startSystem({ own: true, pace: 1 });
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(async () => {
  for (const child of children) child.kill('SIGTERM');
  await system.close();
});

/** Two serial ports that are joined to each other. */
async function joinedPorts(): Promise<{ near: string; far: string }> {
  const folder = mkdtempSync(join(tmpdir(), 'heuristor-'));
  const [near, far] = [join(folder, 'near'), join(folder, 'far')];
  children.push(
    spawn('socat', [`pty,raw,echo=0,link=${near}`, `pty,raw,echo=0,link=${far}`], { stdio: 'ignore' }),
  );
  await until(() => Promise.resolve(existsSync(near) && existsSync(far)), Boolean);
  return { near, far };
}

test('a microcontroller on a serial port: columns found, named, given a unit; garbage counted; recorded, by arrival and by rate', async () => {
  const { near, far } = await joinedPorts();
  await system.startBridge(near);
  const line = createWriteStream(far);
  // One that is destroyed while a line is on its way says so; that is how this one ends.
  line.on('error', () => undefined);
  let count = 0;
  const timer = setInterval(() => {
    count++;
    line.write(count % 25 === 0 ? 'watchdog: 3 &%$\r\n' : `a:${(count / 100).toFixed(3)} b:${count}\r\n`);
  }, 20);
  try {
    await hand.begin(system.site, 'Sketch', []);
    await system.pass(2.5);
    await hand.use('U1-C');
    await system.pass(0.7);
    await hand.waitForText('lines were not understood');
    await hand.pressLabelled('Set up U1-C');
    await hand.type('Name of a', 'voltage');
    await hand.type('Unit of a', 'V');
    await hand.pressLabelled('Close the set-up');
    await hand.lengthOfRun('2');
    await hand.record();
    const [run] = await hand.runs();
    const [a, b] = run.channels;
    expect([a.key, a.unit, a.sampling.kind]).toEqual(['a', 'V', 'timed']);
    // A busy machine writes fewer than the hundred lines of two seconds.
    expect(a.values.length).toBeGreaterThan(30);
    // Every line once, none torn and none twice.
    b.values.forEach((value, i) => {
      if (i > 0) expect([1, 2]).toContain(value - b.values[i - 1]);
    });
    a.values.forEach((value, i) => expect(value).toBeCloseTo(b.values[i] / 100, 6));
    await hand.pressLabelled('Set up U1-C');
    await hand.type('Lines a second; 0 for their times of arrival of U1-C', '50');
    await hand.waitForText('50 Hz');
    await hand.pressLabelled('Close the set-up');
    await system.pass(2.5);
    await hand.record();
    const runs = await hand.runs();
    expect(runs[1].channels[0].sampling).toMatchObject({ kind: 'regular', interval: 0.02 });
  } finally {
    clearInterval(timer);
    line.destroy();
  }
});

test.each([
  ['node', ['examples/device.mjs'], 'J1-S', (address: string) => [`${address.replace('http', 'ws')}/link`]],
  ['python3', ['examples/device.py'], 'P1-S', (address: string) => ['127.0.0.1', new URL(address).port]],
] as const)(
  'the example in %s says hello, sends, and is recorded',
  async (program, script, code, address) => {
    const child = spawn(program, [...script, ...address(system.site)], {
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    children.push(child);
    let said = '';
    child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
    await hand.begin(system.site, `Tea, ${program}`, []);
    await system.pass(1);
    await hand.letIn(code);
    await hand.use(code);
    await system.pass(0.7);
    await hand.lengthOfRun('2');
    await hand.record();
    const [run] = await hand.runs();
    const [{ values, unit }] = run.channels;
    expect(unit).toBe('Cel');
    expect(values.length).toBe(21);
    for (let i = 1; i < values.length; i++) expect(values[i]).toBeLessThan(values[i - 1]);
    expect(run.notes).toEqual([]);
    expect(said).toBe('');
    child.kill('SIGTERM');
  },
  40_000,
);

test('a token is made; what is posted with it is recorded; it is withdrawn', async () => {
  await hand.begin(system.site, 'Weather hut', []);
  await hand.press('Connect');
  await hand.item('Phones and devices on the network');
  await hand.type('Name of the new device', 'Weather hut');
  await hand.waitForText('is shown now and never again');
  const command = await system.page.$eval('.made-token pre', (element) => element.textContent ?? '');
  const token = /Bearer ([\w-]+)/.exec(command)?.[1] ?? '';
  const code = await system.page.$eval('.modal tbody td.mono', (element) => element.textContent ?? '');
  const post = (value: number) =>
    fetch(`${system.site}/api/senml`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${token}`, 'Content-Type': 'application/senml+json' },
      body: JSON.stringify([{ n: 'temp', u: 'Cel', v: value }]),
    }).then(({ status }) => status);
  expect(await post(20)).toBe(204);
  await hand.pressLabelled('Close');
  await hand.use(code);
  await system.pass(0.7);
  await hand.lengthOfRun('2');
  await post(20.5);
  await hand.press('Record');
  for (let i = 0; i < 6; i++) {
    await system.pass(0.3);
    await post(21 + i);
  }
  await hand.waitForText('is ready');
  const [run] = await hand.runs();
  expect(run.channels[0].values.slice(0, 4)).toEqual([21, 22, 23, 24]);
  await hand.press('Connect');
  await hand.item('Phones and devices on the network');
  await hand.press('Revoke');
  await system.page.waitForFunction(() => document.querySelectorAll('.modal tbody tr').length === 0);
  expect(await post(30)).toBe(401);
  await hand.pressLabelled('Close');
});

test('a phone lets itself in by the code on the screen, and its acceleration is recorded', async () => {
  await hand.begin(system.site, 'Phone', []);
  await hand.press('Connect');
  await hand.item('Phones and devices on the network');
  await hand.press('Show a code');
  await system.page.waitForSelector('.pairing-code');
  const code = await system.page.$eval('.pairing-code', (element) => element.textContent ?? '');
  await hand.pressLabelled('Close');
  const phone = await system.newPage('/phone');
  await phone.setViewport({ width: 400, height: 760 });
  // Whoever holds it allows what it asks.
  await phone.browserContext().overridePermissions(system.site, ['accelerometer', 'gyroscope']);
  // Its program comes after the page.
  await (await phone.waitForSelector('input[aria-label="Code"]'))?.type(code.toLowerCase());
  await (await phone.waitForSelector('::-p-xpath(//button[.="Let it in"])'))?.click();
  await (await phone.waitForSelector('::-p-xpath(//button[.="Measure"])'))?.click();
  // A headless browser has no such sensor; its events are made here.
  await phone.evaluate(() => {
    let i = 0;
    setInterval(() => {
      const felt = { x: Math.sin(i / 10), y: 0, z: 9.81 };
      i++;
      window.dispatchEvent(new DeviceMotionEvent('devicemotion', { accelerationIncludingGravity: felt }));
    }, 20);
  });
  await phone.waitForFunction(() => /[1-9]\d* readings sent/.test(document.body.innerText), {
    timeout: 40_000,
  });
  await system.page.bringToFront();
  await hand.press('Connect');
  await hand.item('Phone ');
  await hand.lengthOfRun('2');
  await phone.bringToFront();
  await system.pass(0.6);
  await system.page.evaluate(() =>
    [...document.querySelectorAll('button')]
      .find(({ textContent }) => textContent?.trim() === 'Record')
      ?.click(),
  );
  await system.pass(3);
  await system.page.bringToFront();
  await hand.waitForText('is ready');
  const [run] = await hand.runs();
  const az = run.channels.find(({ key }) => key === 'az');
  expect(az?.unit).toMatch(/^m\/s2$|^m\.s-2$/);
  expect(az?.values.length).toBeGreaterThan(30);
  expect(az?.values.every((value) => value === 9.81)).toBe(true);
});

test('all of it is there after the server was killed', async () => {
  await system.killServer();
  await system.restartServer();
  await system.open('/');
  for (const name of ['Sketch', 'Tea, node', 'Tea, python3', 'Weather hut', 'Phone'])
    await hand.waitForText(name);
});
