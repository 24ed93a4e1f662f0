import { writeFileSync } from 'node:fs';
import { type ElementHandle } from 'puppeteer-core';
import { SheetHand } from './sheet';

/** A run as it is stored. */
export interface StoredRun {
  name: string;
  notes: string[];
  gaps: { channel: string; from: number; to: number }[];
  channels: {
    key: string;
    unit: string;
    sampling: { kind: string; start: number; interval: number };
    values: number[];
  }[];
}

/** Place of the first of two readings in a row that are so; a single one may be a wrong echo. */
export const firstPlace = (values: readonly number[], isSo: (value: number) => boolean): number =>
  values.findIndex((value, i) => isSo(value) && isSo(values[i + 1]));

/** Its time. */
export const firstTime = (
  { values, sampling }: StoredRun['channels'][number],
  isSo: (value: number) => boolean,
): number => sampling.start + firstPlace(values, isSo) * sampling.interval;

/** What a teacher does on the bench, by the words that stand on the screen. */
export class BenchHand extends SheetHand {
  /** Brings in a file of columns as far as the dialog that shows what it holds. */
  async offerFile(file: string, text: string): Promise<void> {
    writeFileSync(file, text);
    const input = await this.page.waitForSelector('input[type=file]');
    await (input as ElementHandle<HTMLInputElement>).uploadFile(file);
  }

  /** Brings a file in as a run of its own. */
  async bring(file: string, text: string, name: string): Promise<void> {
    await this.offerFile(file, text);
    await this.press('Bring in as a run', '.modal');
    await this.waitForText(`· ${name}`);
    await this.page.waitForSelector('.modal', { hidden: true });
  }

  /** Opens a part of the plan's sentence, changes something in it and closes it. */
  async plan(part: 'Rate' | 'Beginning' | 'End' | 'Repetition', change: () => Promise<void>): Promise<void> {
    await (await this.element(`.plan-part[aria-label^="${part}:"]`)).click();
    await this.element('.plan-editor');
    await change();
    await this.page.keyboard.press('Escape');
    await this.page.waitForSelector('.plan-editor', { hidden: true, timeout: 40_000 });
  }

  /** Chooses one of the ways that a part of the plan offers. */
  async choose(id: string): Promise<void> {
    await (await this.element(`#${id}`)).click();
    await this.page.waitForSelector(`#${id}:checked`, { timeout: 40_000 });
  }

  async lengthOfRun(seconds: string): Promise<void> {
    await this.plan('End', async () => {
      if ((await this.page.$('#end-after:checked')) === null) await this.choose('end-after');
      await this.type('Length of the run in seconds', seconds);
    });
  }

  /** A new investigation with these devices. */
  async begin(site: string, name: string, codes: readonly string[]): Promise<void> {
    await this.page.goto(site, { waitUntil: 'load' });
    await this.type('Name of the new investigation', name);
    await this.waitForText('No sensor yet');
    for (const code of codes) await this.use(code);
    if (codes.length > 0) await this.waitForText('is ready');
  }

  /** Zeroes the sensor that is shown, which has to rest. */
  async zero(): Promise<void> {
    await this.press('Zero');
    await this.waitForText('eroed less than a minute ago');
  }

  /** Lets every run begin at zero. */
  async zeroAtStart(code: string, symbol: string): Promise<void> {
    await this.pressLabelled(`Set up ${code}`);
    const choice = `[aria-label="Channel ${symbol}"] ::-p-xpath(.//label[contains(., "Zero anew before each run")])`;
    await (await this.element(choice)).click();
    await this.page.waitForSelector(`[aria-label="Channel ${symbol}"] input[type=checkbox]:checked`);
    await this.pressLabelled('Close the set-up');
  }

  /** Lets runs begin by themselves, at a level. */
  async beginAt(
    quantity: string,
    direction: 'rises through' | 'falls through',
    level: string,
    kept = '0.2',
  ): Promise<void> {
    await this.plan('Beginning', async () => {
      await this.choose('begin-level');
      await this.level('beginning', quantity, direction, level);
      await this.type('Time kept from before', kept);
    });
  }

  /** Lets runs end by themselves, at a level. */
  async endAt(quantity: string, direction: 'rises through' | 'falls through', level: string): Promise<void> {
    await this.plan('End', async () => {
      await this.choose('end-level');
      await this.level('end', quantity, direction, level);
    });
  }

  private async level(of: string, quantity: string, direction: string, level: string): Promise<void> {
    await this.pick(`Quantity of the ${of}`, quantity);
    await this.pick(`Direction of the ${of}`, direction);
    await this.type(`Level of the ${of}`, level);
  }

  /** Arms a run that begins by itself, does something, and waits until the run has ended. */
  async recordWhen(act: () => Promise<void>, seconds = 30): Promise<void> {
    const before = await this.page.$$eval('.chip', (chips) => chips.length);
    await this.page.keyboard.press('Space');
    await this.waitForText('is armed');
    await act();
    await this.page.waitForFunction(
      (count: number) =>
        document.querySelectorAll('.chip').length > count && document.querySelector('.chip .rec') === null,
      { timeout: seconds * 1000, polling: 100 },
      before,
    );
  }

  /** Everything that is stored of the runs of this bench. */
  async runs(): Promise<StoredRun[]> {
    const id = this.page.url().split('/').pop();
    return this.page.evaluate(async (investigation: string | undefined) => {
      const { runs } = (await (await fetch(`/api/investigations/${investigation}`)).json()) as {
        runs: (Omit<StoredRun, 'channels'> & {
          channels: {
            id: number;
            key: string;
            unit: string;
            sampling: StoredRun['channels'][number]['sampling'];
          }[];
        })[];
      };
      return Promise.all(
        runs.map(async (run) => ({
          ...run,
          channels: await Promise.all(
            run.channels.map(async (channel) => ({
              ...channel,
              values: [
                ...new Float64Array(await (await fetch(`/api/channels/${channel.id}/values`)).arrayBuffer()),
              ],
            })),
          ),
        })),
      );
    }, id);
  }

  async connect(code: string): Promise<void> {
    await this.use(code);
    await this.page.waitForFunction(
      () => /^[+−]\d/.test(document.querySelector('[data-testid="reading-x"] span')?.textContent ?? ''),
      { timeout: 40_000 },
    );
  }

  /** Lets a device in that did not come with the program, and waits until it is offered like any other. */
  async letIn(code: string): Promise<void> {
    await this.press('Connect');
    await this.click(
      await this.element(
        '::-p-xpath(//*[contains(@class,"palette-item") and contains(normalize-space(),"Let in")])',
      ),
    );
    await this.page.waitForFunction(
      (name: string) => {
        const entries = [...document.querySelectorAll('.palette-item .choice-title')].map(
          (entry) => entry.textContent ?? '',
        );
        const named = entries.filter((words) => words.includes(name));
        return named.length > 0 && !named.some((words) => words.startsWith('Let in'));
      },
      { polling: 50, timeout: 40_000 },
      code,
    );
    await this.page.keyboard.press('Escape');
    await this.page.waitForSelector('.modal', { hidden: true });
  }

  /** Connects a device, whatever it measures. */
  async use(code: string): Promise<void> {
    await this.press('Connect');
    await this.item(code);
    const card = `[aria-label$=" ${code}"]`;
    // What somebody else uses is asked about first.
    const found = await this.element(`${card}, [aria-labelledby="take-over-title"]`);
    if (await found.evaluate((one) => one.matches('.modal'))) await this.press('Take it over', '.modal');
    await this.element(card);
  }

  /** Records one run with the key and waits for its end. */
  async record(): Promise<void> {
    await this.page.bringToFront();
    await this.nextIsReady();
    const before = await this.page.$$eval('.chip', (chips) => chips.length);
    await this.page.keyboard.press('Space');
    await this.page.waitForFunction(
      (count: number) => document.querySelectorAll('.chip').length > count,
      { timeout: 40_000, polling: 50 },
      before,
    );
    await this.nextIsReady();
  }

  /** Waits until a run can be begun. */
  async nextIsReady(): Promise<void> {
    await this.page.waitForFunction(
      () => document.querySelector('.status')?.textContent.includes('is ready') === true,
      { timeout: 40_000, polling: 50 },
    );
  }

  /** Opens a copy of one of the demo’s investigations, which nobody else changes; it is known by a part of its name. */
  async openCopy(site: string, name: string): Promise<void> {
    // A sign-in may still be on its way.
    await this.page.waitForFunction(async () => (await fetch('/api/me')).ok, { polling: 100 });
    const id = await this.page.evaluate(async (wanted: string) => {
      // Copies that others have made are in the list, too, a page after the other.
      let own: { id: string } | undefined;
      for (let from = 0; own === undefined;) {
        const search = new URLSearchParams({ search: wanted, from: String(from) });
        const { investigations } = (await (await fetch(`/api/investigations?${search}`)).json()) as {
          investigations: { id: string; name: string }[];
        };
        if (investigations.length === 0) throw new Error(`there is no investigation called “${wanted}”`);
        own = investigations.find(({ name: called }) => called.includes(wanted) && !called.includes('(copy'));
        from += investigations.length;
      }
      const copied = await fetch(`/api/investigations/${own.id}/copy`, { method: 'POST' });
      return ((await copied.json()) as { id: string }).id;
    }, name);
    await this.page.goto(`${site}/investigations/${id}`, { waitUntil: 'load' });
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

  /** The part of the axis in sight. */
  async viewport(): Promise<{ from: number; to: number }> {
    return this.page.$eval('[data-testid="overlay"]', (overlay) => {
      const { from, to } = (overlay as HTMLElement).dataset;
      return { from: Number(from), to: Number(to) };
    });
  }

  /** What the horizontal axis shows. */
  async horizontal(name: string): Promise<void> {
    await this.press('Traces');
    const choice = await this.element(
      `::-p-xpath(//*[contains(@class,"show")]//button[@role="menuitemradio"][normalize-space()="${name}"])`,
    );
    await choice.click();
  }

  /** Lets an entry stand against another series than before. */
  async against(lineLabel: string, name: string): Promise<void> {
    await this.menu(`More for ${lineLabel}`, 'Change');
    const list = await this.element(
      `[aria-label="${lineLabel}"] ::-p-xpath(.//label[normalize-space()="Against"]/following-sibling::select[1])`,
    );
    const value = await list.evaluate(
      (select, wanted) =>
        [...(select as HTMLSelectElement).options].find(({ text }) => text === wanted)?.value ?? '',
      name,
    );
    await list.select(value);
  }

  /** Waits until the sheet is stored. */
  async saved(): Promise<void> {
    await this.page.waitForFunction(
      () => document.querySelector('[data-testid="saving"]')?.textContent === 'saved',
      { timeout: 40_000 },
    );
  }
}
