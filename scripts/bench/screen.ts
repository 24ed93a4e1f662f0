import { emptyWorkings } from '@heuristor/contracts';
import { type Entry } from '@heuristor/core';
import { createInvestigation, onlyTeacher, writeDocument } from '@heuristor/server';
import { type Page } from 'puppeteer-core';
import { tenResults, twentyEntries } from './computation';
import { type Figure, milliseconds, quantile } from './figures';
import { framesText, ofBrowser, pageMegabytes, watchFrames } from './graphs';
import { processorSeconds } from './processes';
import { addSampledRun, wave } from './runs';
import { type Site } from './site';

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Three stacked traces of a million points: opening, and zooming by the wheel in the real browser. */
export async function millionPoints(site: Site): Promise<Figure[]> {
  const id = await createInvestigation(await onlyTeacher(), 'A million points');
  await addSampledRun(id, 1_000_000, 0.001, { x: wave, y: (t) => wave(t + 1), z: (t) => wave(t + 2) });
  const browser = await site.browser();
  let page = await site.signedIn(browser);
  // Once for the files of the page, which a class has in its caches.
  await page.goto(`${site.address}/`);
  await pause(500);
  const opening: number[] = [];
  for (let i = 0; i < 3; i++) {
    await page.goto(`${site.address}/`);
    await pause(300);
    const began = performance.now();
    await page.goto(`${site.address}/investigations/${id}`);
    await page.waitForFunction(() => document.querySelectorAll('.trace[data-newest]').length === 3, {
      polling: 10,
      timeout: 30_000,
    });
    opening.push(performance.now() - began);
  }
  await page.close();
  // What is left of pages that were opened before is not this page's.
  page = await site.signedIn(browser);
  await page.goto(`${site.address}/investigations/${id}`);
  await page.waitForFunction(() => document.querySelectorAll('.trace[data-newest]').length === 3, {
    timeout: 30_000,
  });
  await pause(1500);
  await page.mouse.move(640, 300);
  const frames = await watchFrames(page);
  for (let i = 0; i < 120; i++) {
    await page.mouse.wheel({ deltaY: i % 40 < 20 ? -100 : 100 });
    await pause(16);
  }
  const zooming = await frames();
  for (let i = 0; i < 8; i++) await page.mouse.wheel({ deltaY: -100 });
  await pause(600);
  await page.keyboard.down('Shift');
  await page.mouse.down();
  await frames();
  for (let i = 0; i < 120; i++) {
    await page.mouse.move(640 + 2 * (i < 60 ? i : 120 - i), 300);
    await pause(16);
  }
  const panning = await frames();
  await page.mouse.up();
  await page.keyboard.up('Shift');
  const memory = pageMegabytes(browser);
  await page.keyboard.press('t');
  await page.waitForSelector('.number-row');
  const rows = await (await page.$('.number-rows'))?.boundingBox();
  await page.mouse.move((rows?.x ?? 0) + 50, (rows?.y ?? 0) + 100);
  await pause(500);
  await frames();
  for (let i = 0; i < 120; i++) {
    await page.mouse.wheel({ deltaY: i < 60 ? 900 : -700 });
    await pause(16);
  }
  const scrolling = await frames();
  await browser.close();
  return [
    {
      what: 'three traces of 10⁶ points: opening',
      measured: milliseconds(quantile(opening, 0.5)),
      budget: '1 s',
    },
    {
      what: 'three traces of 10⁶ points: zooming by the wheel',
      measured: framesText(zooming),
      budget: '95 % within 16 ms',
    },
    {
      what: 'three traces of 10⁶ points: moved along',
      measured: framesText(panning),
      budget: '95 % within 16 ms',
    },
    {
      what: 'table of 10⁶ rows beside them: scrolled',
      measured: framesText(scrolling),
      budget: 'smooth',
    },
    {
      what: 'three traces of 10⁶ points: memory of the page with its workers',
      measured: `${memory.toFixed(0)} MB`,
      budget: 'under 400 MB',
    },
  ];
}

/** A handle dragged in the real browser: from the pointer's move to the new numbers on the screen. */
export async function draggedRegion(site: Site): Promise<Figure[]> {
  return [
    await draggedOver(site, '10 results', tenResults(150)),
    await draggedOver(site, 'a sheet of 20 entries', twentyEntries(150)),
    await draggedOver(
      site,
      'the end of a sheet of 20 entries, where slopes and areas of derivatives stand',
      twentyEntries(150),
      1,
    ),
  ];
}

/** @param place how far the sheet has been scrolled: 0 to its begin, 1 to its end */
async function draggedOver(site: Site, what: string, entries: Entry[], place = 0): Promise<Figure> {
  const id = await createInvestigation(await onlyTeacher(), `Ten runs: ${what}`);
  for (let i = 0; i < 10; i++) await addSampledRun(id, 10_000, 0.02, { x: (t) => wave(t + i) });
  await writeDocument(await onlyTeacher(), id, 'workings', 1, {
    ...emptyWorkings,
    entries,
  });
  const browser = await site.browser();
  const page = await site.signedIn(browser);
  await page.goto(`${site.address}/investigations/${id}`);
  await page.waitForSelector('[data-result="period"]', { timeout: 30_000 });
  await pause(1500);
  await page.$eval(
    '.result-card',
    (card, share) => {
      let column = card.parentElement;
      while (column !== null && !/auto|scroll/.test(getComputedStyle(column).overflowY))
        column = column.parentElement;
      column?.scrollTo(0, share * column.scrollHeight);
    },
    place,
  );
  await pause(500);
  const delays = await dragging(page);
  await browser.close();
  return {
    what: `region dragged in the browser: ${what} over 10 runs of 10⁴ points, from the move to new numbers`,
    measured: `median ${milliseconds(quantile(delays, 0.5))}, 95 % within ${milliseconds(quantile(delays, 0.95))}`,
    budget: '33 ms',
  };
}

/** Drags the end of region A. @returns how long the numbers in sight took each time */
export async function dragging(page: Page): Promise<number[]> {
  await page.evaluate(() => {
    const delays: number[] = [];
    let moved: number | null = null;
    window.addEventListener('pointermove', () => (moved ??= performance.now()), true);
    // Whatever is seen changes in one stroke.
    const observer = new MutationObserver(() => {
      if (moved === null) return;
      delays.push(performance.now() - moved);
      moved = null;
    });
    for (const watched of document.querySelectorAll('.result-card .card-value'))
      observer.observe(watched, { subtree: true, childList: true, characterData: true, attributes: true });
    (globalThis as unknown as { delays: number[] }).delays = delays;
  });
  const handle = await page.waitForSelector('[aria-label="End of region A"][role="slider"]');
  const box = await handle?.boundingBox();
  if (box === null || box === undefined) throw new Error('no handle');
  const { x, y } = { x: box.x + box.width / 2, y: box.y + 40 };
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 1; i <= 60; i++) {
    await page.mouse.move(x - i, y);
    await pause(60);
  }
  await page.mouse.up();
  return page.evaluate(() => (globalThis as unknown as { delays: number[] }).delays);
}

/** What a bench costs on which nothing happens but one live sensor. */
export async function idleBench(site: Site, code: string): Promise<Figure[]> {
  const id = await createInvestigation(await onlyTeacher(), 'Nothing happens');
  await site.use(id, code);
  const browser = await site.browser();
  const page = await site.signedIn(browser);
  await page.goto(`${site.address}/investigations/${id}`);
  await page.waitForSelector('.thread canvas');
  await pause(3000);
  const before = processorSeconds(ofBrowser(browser));
  await pause(10_000);
  const share = (processorSeconds(ofBrowser(browser)) - before) / 10;
  await browser.close();
  return [
    {
      what: 'idle bench with one live sensor, all processes of the browser',
      measured: `${(100 * share).toFixed(1)} % of a core`,
      budget: '5 %',
    },
  ];
}
