import { type ElementHandle, type Page } from 'puppeteer-core';
import { atRest } from './atRest';

/** What does not come in so many milliseconds does not come: a machine that others work on is several times as slow as it can be. */
const patience = 40_000;

/** What a hand does on any page, by the words that stand on the screen. */
export class PageHand {
  constructor(readonly page: Page) {}

  async press(text: string, inside = ''): Promise<void> {
    const words = `::-p-xpath(.//*[self::button or self::a][normalize-space()="${text}"])`;
    await this.click(await this.element(`${inside} ${words}`.trim()));
  }

  async pressLabelled(label: string): Promise<void> {
    await this.click(await this.element(`[aria-label="${label}"]`));
  }

  /** Clicks on something once it stands still: a menu that is being placed, a list that shifts, would let the click miss. */
  protected async click(target: ElementHandle<Element>): Promise<void> {
    await target.scrollIntoView();
    await target.evaluate(async (element) => {
      let before = '';
      for (let pictures = 0; pictures < 60; pictures++) {
        const box = JSON.stringify(element.getBoundingClientRect());
        if (box === before) return;
        before = box;
        await new Promise((resolve) => requestAnimationFrame(resolve));
      }
    });
    await target.click();
  }

  async menu(opener: string, item: string): Promise<void> {
    await this.pressLabelled(opener);
    await this.item(item);
  }

  /** Presses an entry of the menu, or of the list of choices, that is open. */
  async item(text: string): Promise<void> {
    // A list of choices is long: it is typed what is looked for.
    const search = await this.page.$('.choice-palette input');
    await search?.type(text);
    const entry = await this.element(
      `::-p-xpath(//*[contains(@class,"dropdown-menu") and contains(@class,"show")]//*[contains(@class,"dropdown-item") and contains(normalize-space(),"${text}")] | //*[contains(@class,"palette-item")][.//*[contains(@class,"choice-title") and contains(normalize-space(),"${text}")]])`,
    );
    await this.click(entry);
  }

  async element(selector: string): Promise<ElementHandle<Element>> {
    // A page behind another one draws no frames and takes no clicks.
    await this.page.bringToFront();
    const found = await this.page
      .waitForSelector(selector, { visible: true, timeout: patience })
      .catch(() => null);
    if (found !== null) return found;
    await this.page.screenshot({ path: '.test-data/failure.png' });
    throw new Error(`nothing at ${selector}; .test-data/failure.png shows the page`);
  }

  /** Where something stands on the screen. */
  async boxOf(selector: string): Promise<{ x: number; y: number; width: number; height: number }> {
    const box = await (await this.element(selector)).boundingBox();
    if (box === null) throw new Error(`nothing is seen of ${selector}`);
    return box;
  }

  /** Waits until words stand on the page; where they don't come, a picture of the page is kept beside the logs. */
  async waitForText(text: string | RegExp, timeout = patience): Promise<void> {
    const [wanted, isPattern] = typeof text === 'string' ? [text, false] : [text.source, true];
    try {
      await this.page.waitForFunction(
        (words: string, isRegular: boolean) =>
          isRegular
            ? new RegExp(words).test(document.body.innerText)
            : document.body.innerText.includes(words),
        { timeout, polling: 50 },
        wanted,
        isPattern,
      );
    } catch {
      await this.page.screenshot({ path: '.test-data/failure.png' });
      throw new Error(`“${String(text)}” did not come; .test-data/failure.png shows the page`);
    }
  }

  /** Types a new name into the field that a Rename has opened. */
  async rename(name: string): Promise<void> {
    await this.page.waitForFunction(() => document.activeElement instanceof HTMLInputElement, {
      polling: 50,
      timeout: patience,
    });
    await this.page.keyboard.down('Control');
    await this.page.keyboard.press('a');
    await this.page.keyboard.up('Control');
    await this.page.keyboard.type(name);
    await this.page.keyboard.press('Enter');
  }

  /** Types into a field and leaves it. */
  async type(label: string, text: string): Promise<void> {
    const field = await this.element(`input[aria-label="${label}"]`);
    await field.click({ count: 3 });
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
    await field.evaluate((element) => (element as HTMLElement).blur());
  }

  /** Chooses from a list by the words that an option begins with. */
  async pick(label: string, words: string): Promise<void> {
    const list = await this.element(`select[aria-label="${label}"]`);
    const value = await list.evaluate(
      (select, wanted) =>
        [...(select as HTMLSelectElement).options].find(({ text }) => text.startsWith(wanted))?.value ?? '',
      words,
    );
    await list.select(value);
    await atRest(this.page);
  }
}
