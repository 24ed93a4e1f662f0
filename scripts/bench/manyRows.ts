import { performance } from 'node:perf_hooks';
import { type Figure, milliseconds } from './figures';
import { framesText, watchFrames } from './graphs';
import { type Site } from './site';
import { addTypedTable } from './typedTable';

const rows = 10_000;

/** A table of as many rows as there can be: how long it takes to open, whether it scrolls, and how soon what is typed stands there. */
export async function manyRows(site: Site): Promise<Figure[]> {
  const id = await addTypedTable('Ten thousand rows', { rows, step: 0.001 });
  const screen = await site.signedIn(await site.browser());
  await screen.goto(`${site.address}/`);
  const began = performance.now();
  await screen.goto(`${site.address}/investigations/${id}/trials`);
  await screen.waitForSelector('.trial-grid tbody td input');
  const opened = performance.now() - began;
  await screen.waitForSelector('.traces canvas');
  await new Promise((resolve) => setTimeout(resolve, 2000));
  const frames = await watchFrames(screen);
  await frames();
  await screen.evaluate(async () => {
    const grid = document.querySelector('.trial-grid');
    for (let i = 0; i < 90; i++) {
      grid?.scrollBy(0, 137);
      await new Promise((resolve) => requestAnimationFrame(resolve));
    }
  });
  const scrolled = await frames();
  // From the key that ends typing until the number that follows from it stands in its row.
  await screen.evaluate(() => document.querySelector('.trial-grid')?.scrollTo(0, 0));
  const field = await screen.waitForSelector('input[aria-label="y of row 3"]');
  await field?.click({ count: 3 });
  await screen.keyboard.type('20.06');
  await screen.evaluate(() => {
    const ratio = () =>
      document
        .querySelector('input[aria-label="y of row 3"]')
        ?.closest('tr')
        ?.querySelector('td:last-child')
        ?.textContent.startsWith('20.00') === true;
    const took = new Promise<number>((resolve) => {
      const began = (event: KeyboardEvent) => {
        if (event.key !== 'Enter') return;
        const start = performance.now();
        const look = () => {
          if (ratio() || performance.now() - start > 60_000) resolve(performance.now() - start);
          else requestAnimationFrame(look);
        };
        requestAnimationFrame(look);
      };
      window.addEventListener('keydown', began, { capture: true, once: true });
    });
    Object.assign(globalThis, { took });
  });
  await screen.keyboard.press('Enter');
  const typedIn = await screen.evaluate(() => (globalThis as unknown as { took: Promise<number> }).took);
  return [
    {
      what: `a table of ${rows} typed rows, opened`,
      measured: `${(opened / 1000).toFixed(1)} s`,
      budget: '2 s',
    },
    { what: '… scrolled by four rows a frame', measured: framesText(scrolled), budget: 'no beat missed' },
    {
      what: '… a number that is typed, until what follows from it stands there',
      measured: milliseconds(typedIn),
      budget: '250 ms',
    },
  ];
}
