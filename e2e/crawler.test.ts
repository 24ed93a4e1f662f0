import { signedIn } from './support/signedIn';
import { atRest, drawn } from './support/atRest';
import { type BenchHand } from './support/bench';
import { type System, until } from './support/system';

// Every menu, and every control, by the box that a person sees and the keys that a person presses.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  ({ system, hand } = await signedIn());
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** What opens something, as it stands on the page. */
const openers = '.dropdown-toggle, [aria-haspopup], [aria-expanded]';
const opened = '.dropdown-menu.show, .popover, .modal-dialog';

interface Opener {
  /** Its place among all openers of the page. */
  place: number;
  called: string;
  /** How it opens what it opens. */
  way: string;
}

const toggles = (): Promise<Opener[]> =>
  system.page.$$eval(openers, (all) =>
    all.flatMap((one, place) => {
      const { width, height } = one.getBoundingClientRect();
      const element = one as HTMLButtonElement;
      const called = element.getAttribute('aria-label') ?? element.innerText.trim();
      const way = element.matches('.dropdown-toggle') ? 'menu' : (element.ariaHasPopup ?? 'unfolds');
      const isThere =
        width > 0 && height > 0 && !element.disabled && element.closest('.dropdown-menu') === null;
      return isThere ? [{ place, called, way }] : [];
    }),
  );

/** All of them, once no more come: what a page shows comes bit by bit. */
async function allToggles(): Promise<Opener[]> {
  for (let before = -1; ;) {
    await atRest(system.page);
    const all = await toggles();
    if (all.length === before) return all;
    before = all.length;
  }
}

/** Opens the opener at a place, and tells where what opened stands. */
async function whatOpens(place: number): Promise<{ opener: Box; boxes: (Box & { isMenu: boolean })[] }> {
  const found = (await system.page.$$(openers))[place];
  await found.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  await found.click();
  await atRest(system.page);
  return found.evaluate((opener, all) => {
    const boxOf = (element: Element) => {
      const { left, top, right, bottom } = element.getBoundingClientRect();
      return { left, top, right, bottom };
    };
    return {
      opener: boxOf(opener),
      boxes: [...document.querySelectorAll(all)].map((element) => ({
        ...boxOf(element),
        isMenu: element.matches('.dropdown-menu'),
      })),
    };
  }, opened);
}

/** Closes what is open. @returns whether nothing is open any more, and the opener as it was */
async function closed({ called }: Opener): Promise<boolean> {
  await system.page.keyboard.press('Escape');
  await atRest(system.page);
  const isOpen = await system.page.$(opened);
  return isOpen === null && (await toggles()).some((one) => one.called === called);
}

/** How far two boxes lie apart. */
const apart = (a: Box, b: Box) =>
  Math.max(a.left - b.right, b.left - a.right, a.top - b.bottom, b.top - a.bottom, 0);

/** What an opener is called, whatever stands beside it. */
const kindOf = (called: string) => called.replace(/ (for|of|from) .*|: .*/, '');
const met = new Set<string>();

test.each([
  ['home', null],
  ['a swing', 'Channel buoy'],
  ['an energy', 'where its energy goes'],
])(
  'the first menu that is opened on %s stands beside its button, whole, whichever it is',
  async (_, name) => {
    await system.open('/');
    await hand.waitForText('Investigations');
    await hand.waitForText('Channel buoy');
    if (name !== null) {
      await hand.openCopy(system.site, name);
      await hand.waitForText('Work out');
      await hand.element('.result-card, .card-value .btn-number');
    }
    const url = system.page.url();
    const all = await allToggles();
    expect(all.length).toBeGreaterThan(name === null ? 0 : 10);
    // Those of one kind have the same menu: the first or the last of them, and none that another page has shown already.
    const kinds = [...new Set(all.map(({ called }) => kindOf(called)))].filter((kind) => !met.has(kind));
    const chosen = kinds.map((kind, i) => {
      met.add(kind);
      const alike = all.filter(({ called }) => kindOf(called) === kind);
      return alike[i % 2 === 0 ? 0 : alike.length - 1];
    });
    const wrong: string[] = [];
    // The first that opens in a way has to stand where it should though nothing of its way has been loaded yet.
    const ways = new Set<string>();
    let isAsLoaded = false;
    for (const opener of chosen) {
      const { called, way, place } = opener;
      if (!isAsLoaded || !ways.has(way)) {
        await system.page.goto(url, { waitUntil: 'load' });
        await hand.waitForText(name === null ? 'Channel buoy' : 'Work out');
        if (name !== null) await hand.element('.result-card, .card-value .btn-number');
      }
      ways.add(way);
      // The same opener, which may stand at another place among all of them, and may still be on its way.
      const alike = all.filter((one) => one.called === called);
      const again = await until(
        async () => (await allToggles()).filter((one) => one.called === called),
        ({ length }) => length === alike.length,
      );
      const { opener: button, boxes } = await whatOpens(
        again[alike.findIndex((one) => one.place === place)].place,
      );
      const { width, height } = system.page.viewport() ?? { width: 0, height: 0 };
      for (const box of boxes) {
        const isWhole =
          box.left >= -0.5 && box.top >= -0.5 && box.right <= width + 0.5 && box.bottom <= height + 0.5;
        const isBeside = !box.isMenu || apart(box, button) <= 12;
        if (!isWhole || !isBeside) wrong.push(`${called}: ${JSON.stringify({ button, box })}`);
      }
      isAsLoaded = await closed(opener);
    }
    expect(wrong).toEqual([]);
  },
  240_000,
);

test('Tab goes through every control of the bench; Space and Enter work it, and none of them records but Record', async () => {
  await hand.openCopy(system.site, 'Channel buoy');
  await hand.waitForText('Work out');
  await hand.element('.card-value .btn-number');
  await atRest(system.page);
  const url = system.page.url();
  const { page } = system;
  await page.goto(url, { waitUntil: 'load' });
  await hand.element('.card-value .btn-number');
  await atRest(system.page);
  /** What has the focus: what it is called, whether it is seen, and whether it was here before. */
  const focused = () =>
    page.evaluate(() => {
      const element = document.activeElement;
      if (!(element instanceof HTMLElement || element instanceof SVGElement) || element === document.body)
        return null;
      const { left, top, right, bottom } = element.getBoundingClientRect();
      const isMet = 'met' in element.dataset;
      element.dataset.met = '';
      const labelled = element.getAttribute('aria-labelledby');
      const own = element.id === '' ? null : document.querySelector(`label[for="${element.id}"]`);
      const called =
        element.getAttribute('aria-label') ??
        (labelled === null ? null : document.getElementById(labelled)?.textContent) ??
        own?.textContent ??
        (element.textContent?.trim() || element.getAttribute('title'));
      return {
        called: called ?? '',
        kind: `${element.tagName} ${element.getAttribute('role') ?? ''} ${element.getAttribute('type') ?? ''}`,
        isSeen:
          right > left && bottom > top && right > 0 && bottom > 0 && left < innerWidth && top < innerHeight,
        isMet,
      };
    });
  const runs = async () => (await hand.runs()).length;
  const before = await runs();
  const [met, faults]: string[][] = [[], []];
  const pressed = new Set<string>();
  // What leaves the page is not pressed.
  const leaves = /^(Record|Sign out|Heuristor|Stage|Bench|Files|Look at it)$/;
  for (let i = 0; i < 160; i++) {
    await page.keyboard.press('Tab');
    const at = await focused();
    // The end of the page, or all the way round.
    if (at === null || at.isMet) break;
    met.push(at.called);
    if (at.called === '') faults.push(`no name: ${at.kind}`);
    if (!at.isSeen) faults.push(`not seen: ${at.called}`);
    if (leaves.test(at.called.trim()) || /^A|INPUT|TEXTAREA|SELECT/.test(at.kind)) continue;
    // Those of one kind are worked alike.
    const kind = kindOf(at.called);
    if (pressed.has(kind)) continue;
    pressed.add(kind);
    for (const key of ['Space', 'Enter'] as const) {
      await page.keyboard.press(key);
      await drawn(page);
      await page.keyboard.press('Escape');
      await drawn(page);
      if (page.url() !== url) faults.push(`${key} on ${at.called} leaves the page`);
      // Where decimals are switched, the page is made anew.
      const recorder = await hand.element('.recorder');
      const words = await recorder.evaluate((element) => (element as HTMLElement).innerText);
      if (words.includes('Recording')) faults.push(`${key} on ${at.called} records`);
      // What is dismissed is gone, and its button with it.
      const isLost = await page.evaluate(() => document.activeElement === document.body);
      if (isLost && at.called !== 'Dismiss') faults.push(`${key} on ${at.called} loses the focus`);
    }
  }
  expect(faults).toEqual([]);
  expect(met.length).toBeGreaterThan(60);
  expect(await runs()).toBe(before);
}, 240_000);
