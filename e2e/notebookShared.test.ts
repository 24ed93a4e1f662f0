import { type Page } from 'puppeteer-core';
import { BenchHand } from './support/bench';
import { stored, textsOf, toNotebook, wordsOf, write } from './support/notebook';
import { signedIn } from './support/signedIn';
import { type System, until } from './support/system';

// A notebook that is open on two screens at once, with the link cut in between, and what a stranger may write in it.

let system: System;
let hand: BenchHand;
let other: Page;
let second: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
beforeEach(async () => {
  await hand.openCopy(system.site, 'Channel buoy');
  await toNotebook(hand);
  other = await system.newPage(new URL(hand.page.url()).pathname);
  second = new BenchHand(other);
  await second.element('.notebook-sheet');
});
afterEach(async () => {
  await other.close();
  expect(system.faults).toEqual([]);
});
afterAll(() => system.close());

const focusText = async (page: Page, at: number, key: 'Home' | 'End') => {
  await page.bringToFront();
  await page.evaluate((index) => document.querySelectorAll<HTMLElement>('.rich-text')[index].focus(), at);
  await page.keyboard.down('Control');
  await page.keyboard.press(key);
  await page.keyboard.up('Control');
};
const count = (text: string, token: string) => text.split(token).length - 1;
const alike = async () => {
  await until(
    async () => JSON.stringify(await textsOf(hand.page)) === JSON.stringify(await textsOf(other)),
    Boolean,
  );
  return (await textsOf(hand.page)).join('\n');
};

test('two who type in one text and in two, with the link of one cut meanwhile, end with the same, each word once', async () => {
  await write(hand, 'middle');
  await stored(hand.page);
  await until(async () => (await textsOf(other)).join() === 'middle', Boolean);
  const tokens: string[] = [];
  const type = async (page: Page, at: number, key: 'Home' | 'End', token: string) => {
    await focusText(page, at, key);
    await page.keyboard.type(token);
    tokens.push(token);
  };
  await type(hand.page, 0, 'End', ' one-mine ');
  await type(other, 0, 'Home', 'one-theirs ');
  await other.setOfflineMode(true);
  for (let i = 0; i < 4; i++) {
    await type(hand.page, 0, 'End', `mine-${i} `);
    await type(other, 0, 'Home', `theirs-${i} `);
  }
  await write(hand, 'a second text');
  await write(second, 'a third text, written while the link was cut');
  await other.setOfflineMode(false);
  const text = await alike();
  for (const token of [...tokens.map((one) => one.trim()), 'a second text', 'a third text', 'middle'])
    expect([token, count(text, token)]).toEqual([token, 1]);
  await Promise.all([stored(hand.page), stored(other)]);
  // The server has the same.
  await other.reload({ waitUntil: 'load' });
  await second.element('.rich-text');
  expect((await textsOf(other)).join('\n')).toBe(text);
}, 240_000);

test('a step back takes one’s own words, and leaves what the other has written since', async () => {
  await write(hand, 'mine');
  await stored(hand.page);
  await until(async () => (await textsOf(other)).join() === 'mine', Boolean);
  await focusText(other, 0, 'End');
  await other.keyboard.type(' theirs');
  await until(async () => (await textsOf(hand.page)).join() === 'mine theirs', Boolean);
  await focusText(hand.page, 0, 'Home');
  await hand.page.keyboard.type('again ');
  await hand.page.keyboard.down('Control');
  await hand.page.keyboard.press('z');
  await hand.page.keyboard.up('Control');
  expect((await textsOf(hand.page)).join()).toBe('mine theirs');
  expect(await alike()).toBe('mine theirs');
});

test('what was typed a moment before the page was loaded anew is there', async () => {
  await write(hand, 'the last word');
  await hand.page.reload({ waitUntil: 'load' });
  await hand.element('.rich-text');
  expect(await textsOf(hand.page)).toEqual(['the last word']);
  await stored(hand.page);
  await until(async () => (await textsOf(other)).join() === 'the last word', Boolean);
});

test('scripts, styles and odd addresses that are pasted do nothing; a million letters are kept', async () => {
  await write(hand, 'x');
  const paste = (html: string, text: string) =>
    hand.page.evaluate(
      (markup, plain) => {
        const data = new DataTransfer();
        if (markup !== '') data.setData('text/html', markup);
        data.setData('text/plain', plain);
        document.activeElement?.dispatchEvent(
          new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
        );
      },
      html,
      text,
    );
  await hand.page.evaluate(() => ((globalThis as { hurt?: number }).hurt = 0));
  await paste(
    '<p onclick="hurt=1">one<script>hurt=1</script><img src="/none.png" onerror="hurt=1">' +
      '<a href="javascript:hurt=1">two</a><a href="data:text/html,x">three</a>' +
      '<span style="position:fixed;inset:0">four</span><style>body{display:none}</style></p>',
    'one two three four',
  );
  await hand.waitForText('four');
  const held = await hand.page.$eval('.rich-text', (text) => ({
    html: text.innerHTML,
    hurt: (globalThis as { hurt?: number }).hurt,
  }));
  expect(held.hurt).toBe(0);
  expect(held.html).not.toMatch(
    /script|onclick|onerror|position: ?fixed|<img src|<style|javascript:|data:text/i,
  );
  // Reading what was pasted, the browser says that it runs nothing of it; nothing else is said.
  const said = system.faults
    .splice(0)
    .filter((fault) => !/inline (event handler|style) violates/.test(fault));
  expect(said).toEqual([]);
  await stored(hand.page);
  const long = 'A long tale. '.repeat(77_000);
  await paste('', long);
  await until(
    () => hand.page.$eval('.rich-text', (text) => text.textContent.length),
    (length) => length > 1_000_000,
    60,
  );
  await stored(hand.page);
  await until(
    () => other.$eval('.rich-text', (text) => text.textContent.length),
    (length) => length > 1_000_000,
    60,
  );
  expect(await wordsOf(other, '.conflict')).toEqual([]);
  // More than can be stored in one go is not taken, and the rest goes on.
  await paste('', long + long);
  await hand.waitForText('That is too much at once: 3 MB of words.');
  await stored(hand.page);
});
