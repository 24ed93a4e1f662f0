import { type Page } from 'puppeteer-core';
import { type BenchHand } from './bench';

/** The words of a step or a question, as they read. */
export const saidBy = (page: Page, title: string): Promise<string> =>
  page.$$eval(
    '.guide-item',
    (items, wanted) =>
      (
        items.find((item) => item.querySelector('h3')?.textContent.includes(wanted)) as
          HTMLElement | undefined
      )?.innerText
        .replaceAll(/\s+/g, ' ')
        .trim() ?? '',
    title,
  );

/** Waits until a step or a question says something. */
export const untilSaid = (page: Page, title: string, words: string) =>
  page
    .waitForFunction(
      (wanted: string, part: string) =>
        [...document.querySelectorAll<HTMLElement>('.guide-item')]
          .find((item) => item.querySelector('h3')?.textContent.includes(wanted))
          ?.innerText.replaceAll(/\s+/g, ' ')
          .includes(part) === true,
      { polling: 50, timeout: 40_000 },
      title,
      words,
    )
    .catch(async () => {
      await page.screenshot({ path: '.test-data/failure.png' });
      throw new Error(`“${title}” says “${await saidBy(page, title)}” and not “${words}”`);
    });

/** Presses a button of a step or a question. */
export const pressIn = async (hand: BenchHand, title: string, button: string) => {
  const found = await hand.page.waitForSelector(
    `xpath///*[contains(@class, "guide-item")][.//h3[contains(normalize-space(), "${title}")]]//button[normalize-space() = "${button}"]`,
    { timeout: 40_000 },
  );
  await found?.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  await found?.click();
};
