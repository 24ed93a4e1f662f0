import { type Page } from 'puppeteer-core';
import { type BenchHand } from './bench';

/** Goes to the notebook of the investigation that is open. */
export async function toNotebook(hand: BenchHand): Promise<void> {
  await hand.press('Notebook', 'nav');
  await hand.element('.notebook-sheet');
}

/** Goes back to the bench, with its results worked out. */
export async function toBench(hand: BenchHand): Promise<void> {
  await hand.press('Bench', 'nav');
  await hand.element('.groups[aria-busy="false"]');
}

/** Waits until all that was written is stored. */
export const stored = (page: Page) =>
  page.waitForFunction(() => document.querySelector('[data-testid="saving"]')?.textContent === 'saved', {
    polling: 50,
    timeout: 40_000,
  });

/** Begins a text at the end, and types into it. */
export async function write(hand: BenchHand, text: string): Promise<void> {
  const before = await hand.page.$$eval('.rich-text', (texts) => texts.length);
  await hand.press('Text', '.new-blocks');
  await hand.page.waitForFunction(
    (count: number) =>
      document.querySelectorAll('.rich-text').length > count &&
      document.activeElement?.classList.contains('rich-text'),
    { polling: 50, timeout: 40_000 },
    before,
  );
  await hand.page.keyboard.type(text);
}

/** Quotes the value that is called so, of a run, where the hand writes. */
export async function quote(hand: BenchHand, name: string, run?: string): Promise<void> {
  const before = await hand.page.$$eval('.quoted', (quotes) => quotes.length);
  await hand.press('Value', '.text-tools');
  await hand.element('.quote-chooser .list-group-item');
  if (run !== undefined) {
    await hand.pick('Run', run);
    await hand.page.click('input[aria-label="Search values"]');
  }
  await hand.page.keyboard.type(name);
  await hand.element(`.quote-chooser ::-p-xpath(.//button[contains(normalize-space(), "${name}")])`);
  await hand.page.keyboard.press('Enter');
  await hand.page.waitForFunction(
    (count: number) =>
      document.querySelectorAll('.quoted').length > count &&
      document.activeElement?.classList.contains('rich-text'),
    { polling: 50, timeout: 40_000 },
    before,
  );
}

/** The texts of a notebook, as they read. */
export const textsOf = (page: Page): Promise<string[]> =>
  page.$$eval('.rich-text', (texts) =>
    texts.map((text) => (text as HTMLElement).innerText.replaceAll(/\s+/g, ' ').trim()),
  );

/** The words of all elements that a selector finds. */
export const wordsOf = (page: Page, selector: string): Promise<string[]> =>
  page.$$eval(selector, (elements) =>
    elements.map((element) => (element as HTMLElement).innerText.replaceAll(/\s+/g, ' ').trim()),
  );
