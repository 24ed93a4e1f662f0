import { type ElementHandle, type Page } from 'puppeteer-core';
import { pause } from './system';

/** What a teacher does on the bench, by the words that stand on the screen. */
export class BenchHand {
  constructor(private readonly page: Page) {}

  async press(text: string, inside = ''): Promise<void> {
    await (
      await this.element(
        `${inside} ::-p-xpath(.//*[self::button or self::a][normalize-space()="${text}"])`.trim(),
      )
    ).click();
  }

  async pressLabelled(label: string): Promise<void> {
    await (await this.element(`[aria-label="${label}"]`)).click();
  }

  async menu(opener: string, item: string): Promise<void> {
    await this.pressLabelled(opener);
    await pause(150);
    await this.item(item);
  }

  /** Presses an entry of the menu that is open. */
  async item(text: string): Promise<void> {
    const entry = await this.element(
      `::-p-xpath(//*[contains(@class,"dropdown-menu") and contains(@class,"show")]//*[contains(@class,"dropdown-item") and contains(normalize-space(),"${text}")])`,
    );
    await entry.click();
  }

  async element(selector: string): Promise<ElementHandle<Element>> {
    // A page behind another one draws no frames and takes no clicks.
    await this.page.bringToFront();
    const found = await this.page.waitForSelector(selector, { visible: true, timeout: 10_000 });
    if (found === null) throw new Error(`nothing at ${selector}`);
    return found;
  }

  /** Waits until words stand on the page; where they don't come, a picture of the page is kept beside the logs. */
  async waitForText(text: string, timeout = 15_000): Promise<void> {
    try {
      await this.page.waitForFunction(
        (wanted: string) => document.body.innerText.includes(wanted),
        { timeout, polling: 100 },
        text,
      );
    } catch {
      await this.page.screenshot({ path: '.test-data/failure.png' });
      throw new Error(`“${text}” did not come; .test-data/failure.png shows the page`);
    }
  }

  /** Types a new name into the field that a Rename has opened. */
  async rename(name: string): Promise<void> {
    await this.page.waitForFunction(() => document.activeElement instanceof HTMLInputElement, {
      polling: 50,
      timeout: 5000,
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

  async connect(code: string): Promise<void> {
    await this.press('Connect');
    await pause(150);
    await this.item(code);
    await this.element(`[aria-label="Motion sensor ${code}"]`);
    await this.page.waitForFunction(
      () => /^[+−]\d/.test(document.querySelector('[data-testid="reading-x"] span')?.textContent ?? ''),
      { timeout: 10_000 },
    );
  }

  /** Records one run with the key and waits for its end; tells the number of the run. */
  async record(): Promise<void> {
    await this.page.bringToFront();
    const before = await this.page.$$eval('.chip', (chips) => chips.length);
    await this.page.keyboard.press('Space');
    await this.page.waitForFunction(
      (count: number) => document.querySelectorAll('.chip').length > count,
      { timeout: 5000 },
      before,
    );
    await this.page.waitForFunction(() => document.querySelector('.chip .rec') === null, {
      timeout: 30_000,
      polling: 100,
    });
  }

  /** Drags over the traces from one time to another and lets go. */
  async mark(from: number, to: number, trace = 0): Promise<void> {
    const overlay = await this.element('[data-testid="overlay"]');
    const box = await overlay.boundingBox();
    const panels = await this.page.$$('[data-trace]');
    const panel = await panels[trace].boundingBox();
    if (box === null || panel === null) throw new Error('the traces have no place');
    const { from: low, to: high } = await this.viewport();
    const x = (time: number) => box.x + (box.width * (time - low)) / (high - low);
    const y = panel.y + panel.height * 0.75;
    await this.page.mouse.move(x(from), y);
    await this.page.mouse.down();
    await this.page.mouse.move(x((from + to) / 2), y, { steps: 6 });
    await this.page.mouse.move(x(to), y, { steps: 6 });
    await this.page.mouse.up();
  }

  /** The stretch of the axis in sight, from what the runs in the traces hold: all runs start at 0. */
  async viewport(): Promise<{ from: number; to: number }> {
    const length = await this.page.$eval('[aria-label="Length of the run in seconds"]', (field) =>
      Number((field as HTMLInputElement).value),
    );
    return { from: 0, to: length };
  }

  /** The full digits of a result of the run in front, from the title of what is shown. */
  async result(lineLabel: string, key: string): Promise<{ value: number; uncertainty: number }> {
    const selector = `[aria-busy="false"] [aria-label="${lineLabel}"] .results [data-result="${key}"] span[title]`;
    const shown = await this.page.waitForSelector(selector, { timeout: 10_000 }).catch(async () => {
      await this.page.screenshot({ path: '.test-data/failure.png' });
      throw new Error(`no ${key} of “${lineLabel}”; .test-data/failure.png shows the page`);
    });
    const title = await shown?.evaluate((span) => span.getAttribute('title'));
    return parsed(title ?? '');
  }

  /** The main results of a line for all runs but the one in front. */
  async otherResults(lineLabel: string): Promise<{ value: number; uncertainty: number }[]> {
    await this.element('.groups[aria-busy="false"]');
    const titles = await this.page.$$eval(`[aria-label="${lineLabel}"] .other-runs span[title]`, (spans) =>
      spans.map((span) => span.getAttribute('title') ?? ''),
    );
    return titles.map(parsed);
  }

  async shownText(lineLabel: string): Promise<string> {
    return (await this.element(`[aria-label="${lineLabel}"]`)).evaluate(
      (card) => (card as HTMLElement).innerText,
    );
  }

  /** Waits until the sheet is stored. */
  async saved(): Promise<void> {
    await this.page.waitForFunction(
      () => document.querySelector('[data-testid="saving"]')?.textContent === 'saved',
      { timeout: 10_000 },
    );
  }
}

function parsed(title: string): { value: number; uncertainty: number } {
  const match = /all digits: (\S+)(?: ± (\S+))?/.exec(title);
  return { value: Number(match?.[1]), uncertainty: Number(match?.[2]) };
}
