import { PageHand } from './page';

/** What a teacher does with a sheet of entries: takes what is offered, unfolds cards, reads results. */
export class SheetHand extends PageHand {
  /** Takes an offer for the series of a name, on the region that is marked; the bar stays for the next one. */
  async offer(series: string, offer: string): Promise<void> {
    await this.pick('Series', series);
    await this.element('.offers[aria-busy="false"]');
    await this.takeOffer(offer, true);
  }

  /** Takes an offer where it stands: in the bar, or in one of its menus. */
  async takeOffer(offer: string, staysOpen = false): Promise<void> {
    const wanted = `[data-offer="${offer}"]`;
    if ((await this.page.$(`.offers > ${wanted}`)) === null) {
      for (const menu of ['measure', 'fit', 'look']) {
        await this.click(await this.element(`.offers [data-offers="${menu}"]`));
        await this.element('.offer-menu.show');
        if ((await this.page.$(`.offer-menu.show ${wanted}`)) !== null) break;
        await this.page.keyboard.press('Escape');
      }
    }
    if (staysOpen) await this.page.keyboard.down('Shift');
    await this.click(await this.element(`.offers > ${wanted}, .offer-menu.show ${wanted}`));
    if (staysOpen) await this.page.keyboard.up('Shift');
  }

  /** Puts a template onto the sheet with one press, and takes away what says so. */
  async template(name: string): Promise<void> {
    await this.press('Templates');
    await this.item(name);
    await this.waitForText(`“${name}” is on the sheet`);
    await this.page.mouse.move(600, 300);
  }

  /** Opens the relations drawn through the readings of the region that is marked. */
  async relationsBySight(): Promise<void> {
    await this.click(await this.element('.offers [data-offers="fit"]'));
    await this.item('Relations by sight');
  }

  /** Unfolds a card, unless all it says is seen already, or its line says all. */
  async unfoldCard(selector: string): Promise<void> {
    const card = await this.element(selector);
    const button = await card.$('.card-unfold[aria-expanded="false"]');
    if (button !== null) await this.click(button);
  }

  /** Unfolds the card of an entry that has a name. */
  async unfoldNamed(name: string): Promise<void> {
    const card = await this.page.waitForFunction(
      (called: string) =>
        [...document.querySelectorAll('.result-card')]
          .find(
            (one) => (one.querySelector('.entry-name')?.textContent ?? '').replace(/ [=·] $/, '') === called,
          )
          ?.getAttribute('data-entry'),
      { timeout: 40_000, polling: 50 },
      name,
    );
    await this.unfoldCard(`.result-card[data-entry="${await card.jsonValue()}"]`);
  }

  /** A result of an entry that is known by its id’s name on the sheet, with what stands behind ±. */
  async named(name: string, key: string): Promise<{ value: number; uncertainty: number }[]> {
    await this.element('.groups[aria-busy="false"]');
    await this.unfoldNamed(name);
    const front = await this.page
      .waitForFunction(
        (called: string, wanted: string) => {
          const card = [...document.querySelectorAll('.result-card')].find(
            (one) => (one.querySelector('.entry-name')?.textContent ?? '').replace(/ [=·] $/, '') === called,
          );
          const titles = (selector: string) =>
            [...(card?.querySelectorAll(selector) ?? [])].map((span) => span.getAttribute('title') ?? '');
          const own = titles(`:is(.results, .card-value) [data-result="${wanted}"] span[title]`);
          return own.length === 0 ? null : [...titles('.other-runs span[title]'), ...own];
        },
        { timeout: 40_000, polling: 100 },
        name,
        key,
      )
      .catch(async () => {
        await this.page.screenshot({ path: '.test-data/failure.png' });
        throw new Error(`no ${key} of “${name}”; .test-data/failure.png shows the page`);
      });
    return ((await front.jsonValue()) ?? []).map(parsed);
  }

  /** The full digits of a result of the run in front, from the title of what is shown. */
  async result(lineLabel: string, key: string, inside = ''): Promise<{ value: number; uncertainty: number }> {
    await this.unfoldCard(`${inside} .result-card[aria-label="${lineLabel}"]`);
    const selector = `[aria-busy="false"] ${inside} [aria-label="${lineLabel}"] :is(.results, .card-value) [data-result="${key}"] span[title]`;
    const shown = await this.page.waitForSelector(selector, { timeout: 40_000 }).catch(async () => {
      await this.page.screenshot({ path: '.test-data/failure.png' });
      throw new Error(`no ${key} of “${lineLabel}”; .test-data/failure.png shows the page`);
    });
    const title = await shown?.evaluate((span) => span.getAttribute('title'));
    return parsed(title ?? '');
  }

  /** The main results of a line for all runs but the one in front. */
  async otherResults(lineLabel: string, inside = ''): Promise<{ value: number; uncertainty: number }[]> {
    await this.element('.groups[aria-busy="false"]');
    await this.unfoldCard(`${inside} .result-card[aria-label="${lineLabel}"]`);
    const titles = await this.page.$$eval(
      `${inside} [aria-label="${lineLabel}"] .other-runs span[title]`,
      (spans) => spans.map((span) => span.getAttribute('title') ?? ''),
    );
    return titles.map(parsed);
  }

  /** The main results of a line for all runs in their order, the newest being the one in front. */
  async results(lineLabel: string, key: string, inside = ''): Promise<number[]> {
    return (await this.allResults(lineLabel, key, inside)).map(({ value }) => value);
  }

  /** The same, with what stands behind ±. */
  async allResults(
    lineLabel: string,
    key: string,
    inside = '',
  ): Promise<{ value: number; uncertainty: number }[]> {
    const front = await this.result(lineLabel, key, inside);
    return [...(await this.otherResults(lineLabel, inside)), front];
  }

  /** What a person reads on a card; of a list only what is chosen. */
  async shownText(lineLabel: string): Promise<string> {
    await this.unfoldCard(`.result-card[aria-label="${lineLabel}"]`);
    return (await this.element(`[aria-label="${lineLabel}"]`)).evaluate((card) => {
      const lists = [...card.querySelectorAll('select')];
      const chosen = lists.map((list) => {
        const text = document.createElement('span');
        text.textContent = ` ${list.selectedOptions[0]?.textContent ?? ''}`;
        list.before(text);
        list.hidden = true;
        return text;
      });
      const text = (card as HTMLElement).innerText;
      chosen.forEach((one) => one.remove());
      lists.forEach((list) => (list.hidden = false));
      return text;
    });
  }
}

function parsed(title: string): { value: number; uncertainty: number } {
  const match = /all digits: (\S+)(?: ± (\S+))?/.exec(title);
  return { value: Number(match?.[1]), uncertainty: Number(match?.[2]) };
}
