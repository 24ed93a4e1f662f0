import { type Page } from 'puppeteer-core';
import { type BenchHand } from './bench';

/** Asks one more thing of every run, in the row under the traces; without a unit it is a word. */
export async function askOfRuns(hand: BenchHand, name: string, unit: string): Promise<void> {
  await hand.press('Condition', '.conditions');
  await hand.element('input[aria-label="Name of the new condition"]:focus');
  await hand.page.keyboard.type(name);
  if (unit !== '') await hand.page.type('input[aria-label="Unit of the new condition"]', unit);
  await hand.press('Ask for it in every run');
  await hand.element(`.conditions input[aria-label^="${name} of"]`);
}

/** Pastes what was copied elsewhere. */
export const paste = (page: Page, text: string): Promise<void> =>
  page.evaluate((copied: string) => {
    const data = new DataTransfer();
    data.setData('text', copied);
    document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  }, text);

/** Adds a column to the table that is looked at, by what is typed. */
export async function addColumn(hand: BenchHand, typed: string): Promise<void> {
  await hand.press('Column');
  await hand.element('.modal.show input:focus');
  await hand.page.keyboard.type(typed);
  await hand.page.keyboard.press('Enter');
  await hand.page.waitForSelector('.modal.show', { hidden: true });
}
