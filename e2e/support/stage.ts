import { type Page } from 'puppeteer-core';
import { type System } from './system';

/** What a hand does on the Stage. */
export class StageHand {
  private constructor(
    private readonly system: System,
    readonly page: Page,
  ) {}

  static async open(system: System, apparatus: string): Promise<StageHand> {
    const stage = new StageHand(system, await system.newPage(`/stage/${apparatus}`));
    await stage.page.waitForSelector('.stage-controls', { timeout: 40_000 });
    return stage;
  }

  async show(apparatus: string): Promise<void> {
    await this.page.bringToFront();
    await this.page.click(`.scene-list a[href="/stage/${apparatus}"]`);
    await this.page.waitForSelector(`.scene-list a.active[href="/stage/${apparatus}"]`);
    await this.page.waitForSelector('.stage-controls', { timeout: 40_000 });
    await this.back();
  }

  async press(text: string): Promise<void> {
    await this.front();
    const button = await this.page.waitForSelector(
      `.stage-controls ::-p-xpath(.//button[normalize-space()="${text}"][not(@disabled)])`,
      { timeout: 40_000 },
    );
    await button?.click();
    await this.system.pass(0.3);
    await this.back();
  }

  /** Unfolds the errors of a device. */
  async errorsOf(code: string): Promise<void> {
    await this.front();
    const summary = await this.page.waitForSelector(
      `.sensor-errors:not([open]) ::-p-xpath(.//summary[contains(., "${code}")])`,
      { timeout: 40_000 },
    );
    await summary?.click();
    await this.page.waitForSelector('.sensor-errors[open] input');
    await this.back();
  }

  /** Moves a slider, or chooses a kind. */
  async set(label: string, value: number): Promise<void> {
    await this.front();
    await this.page.evaluate(
      (wanted, number) => {
        const found = [...document.querySelectorAll<HTMLLabelElement>('.stage-controls label')].find(
          ({ textContent }) => textContent === wanted,
        );
        const field = document.getElementById(found?.htmlFor ?? '') as HTMLInputElement | HTMLSelectElement;
        const prototype = field instanceof HTMLSelectElement ? HTMLSelectElement : HTMLInputElement;
        Object.getOwnPropertyDescriptor(prototype.prototype, 'value')?.set?.call(field, String(number));
        field.dispatchEvent(
          new Event(field instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }),
        );
      },
      label,
      value,
    );
    await this.system.pass(0.4);
    await this.back();
  }

  /** Carries what can be held through positions of its handle's keys: so many steps, some seconds apart. */
  async carry(handle: string, key: 'ArrowRight' | 'ArrowLeft', steps: number, apart: number): Promise<void> {
    await this.front();
    await this.page.$eval(`[aria-label="${handle}"]`, (element) => (element as SVGElement).focus());
    for (let i = 0; i < steps; i++) {
      await this.page.keyboard.press(key);
      await this.system.pass(apart);
    }
    await this.back();
  }

  /** Where something that can be held is now. */
  async place(handle: string): Promise<number> {
    return this.page.$eval(`[aria-label="${handle}"]`, (element) =>
      Number(element.getAttribute('aria-valuenow')),
    );
  }

  /** What is pressed while the page has no connection reaches nothing; its head says so. */
  private async front(): Promise<void> {
    await this.page.bringToFront();
    await this.page.waitForFunction(() => document.querySelector('.head .hint') === null, {
      timeout: 40_000,
      polling: 100,
    });
  }

  private async back(): Promise<void> {
    await this.system.page.bringToFront();
  }
}
