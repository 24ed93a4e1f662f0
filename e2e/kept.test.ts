import { join } from 'node:path';
import { type HTTPRequest } from 'puppeteer-core';
import { atRest } from './support/atRest';
import { BenchHand } from './support/bench';
import { type System, startSystem, until } from './support/system';

// Nothing that is on a page is lost, whatever becomes of the server meanwhile, and what cannot be stored is said.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  system = await startSystem({ own: true });
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
  await hand.type('Name of the new investigation', 'Kept');
  await hand.waitForText('No run yet');
  const rows = Array.from({ length: 100 }, (_, i) => `${(i * 0.02).toFixed(2)},${(0.01 * i).toFixed(4)}`);
  await hand.bring(join(system.downloads, '..', 'kept.csv'), `t (s),x (m)\n${rows.join('\n')}\n`, 'kept');
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

const workOut = async (item: string) => {
  await hand.press('Work out');
  await hand.item(item);
};
const cards = () => system.page.$$eval('.result-card', (all) => all.length);

test.each([
  ['stopped in good order', () => system.stopServer()],
  ['killed', () => system.killServer()],
])(
  'a server that is %s leaves the bench where it is, with what is not stored yet; it is stored once the server is back',
  async (_, end) => {
    const address = system.page.url();
    const before = await cards();
    await end();
    await hand.waitForText('No connection to Heuristor; trying again');
    await workOut('Running integral of x');
    await hand.waitForText('The workings are not stored yet: Heuristor does not answer.');
    await atRest(system.page);
    expect(system.page.url()).toBe(address);
    expect(await cards()).toBe(before + 1);
    await system.restartServer();
    await system.page.waitForFunction(() => !document.body.innerText.includes('No connection to Heuristor'), {
      timeout: 40_000,
    });
    await hand.saved();
    expect(system.page.url()).toBe(address);
    await system.page.reload({ waitUntil: 'load' });
    await hand.waitForText('· kept');
    await atRest(system.page);
    expect(await cards()).toBe(before + 1);
  },
  60_000,
);

test('what was done in the moment before the page was left is stored', async () => {
  const address = system.page.url();
  const before = await cards();
  await workOut('Running integral of x');
  await system.page.waitForFunction(
    (count: number) => document.querySelectorAll('.result-card').length === count,
    { polling: 'mutation' },
    before + 1,
  );
  // The page waits a third of a second for more; what is not stored by then goes with its last message.
  await system.page.goto('about:blank');
  await system.page.goto(address, { waitUntil: 'load' });
  await hand.waitForText('· kept');
  await until(cards, (count) => count === before + 1);
});

test('signed out in another window, the bench goes to the sign-in page', async () => {
  const other = await system.newPage('/');
  const others = new BenchHand(other);
  await others.press('Sign out');
  await hand.waitForText('Please sign in');
  await other.close();
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
  await (await hand.element('::-p-xpath(//a[contains(., "Kept")])')).click();
  await hand.waitForText('· kept');
});

test('a save that is refused is said, is not tried for ever, and can be tried again', async () => {
  let asked = 0;
  await system.page.setRequestInterception(true);
  const refuse = (request: HTTPRequest) => {
    if (!request.url().endsWith('/workings') || request.method() !== 'PUT') {
      void request.continue();
      return;
    }
    asked++;
    void request.respond({
      status: 400,
      contentType: 'application/json',
      body: JSON.stringify({
        error: { code: 'invalid-request', message: 'There are too many of them.' },
      }),
    });
  };
  system.page.on('request', refuse);
  const before = await cards();
  await workOut('Text');
  await hand.element('textarea:focus');
  await system.page.keyboard.type('Not stored yet');
  await system.page.keyboard.down('Control');
  await system.page.keyboard.press('Enter');
  await system.page.keyboard.up('Control');
  await hand.waitForText('The workings are not stored: There are too many of them.');
  const soon = asked;
  await atRest(system.page);
  expect(asked).toBe(soon);
  system.page.off('request', refuse);
  await system.page.setRequestInterception(false);
  await hand.press('Try again');
  await hand.saved();
  await system.page.reload({ waitUntil: 'load' });
  await hand.waitForText('Not stored yet');
  expect(await cards()).toBe(before + 1);
});

test('what could not be kept is not built: the 201st entry is refused in words, and the 200 stand', async () => {
  const id = system.page.url().split('/').pop() ?? '';
  await system.page.evaluate(async (investigation: string) => {
    const path = `/api/investigations/${investigation}`;
    const found = (await (await fetch(path)).json()) as {
      workings: { entries: unknown[] };
      workingsVersion: number;
    };
    const entries = [...found.workings.entries];
    while (entries.length < 200)
      entries.push({ kind: 'words', id: `w${entries.length}`, name: '', text: 'one more', look: 'text' });
    const answer = await fetch(`${path}/workings`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({
        version: found.workingsVersion,
        workings: { ...found.workings, entries },
      }),
    });
    if (!answer.ok) throw new Error(await answer.text());
  }, id);
  await system.page.reload({ waitUntil: 'load' });
  await system.page.waitForFunction(() => document.querySelectorAll('.result-card').length === 200);
  await workOut('Running integral of x');
  await hand.waitForText('This would make 201 entries; 200 can be kept.');
  expect(await cards()).toBe(200);
});
