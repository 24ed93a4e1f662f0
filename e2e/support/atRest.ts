import { type Page } from 'puppeteer-core';

/** Pictures in a row that have to be the same, and those after which something moves for good. */
const [alike, most] = [3, 60];

/**
 * Waits until what a hand has done has been drawn: nothing that was laid out shifts any more, no animation runs, nothing is being worked
 * out. It counts the pictures of the page, so that a slow machine is waited for longer. A page on which something moves for good, as
 * while a run is recorded, is left after some pictures.
 */
export const atRest = (page: Page): Promise<void> =>
  page.evaluate(
    async (wanted: number, limit: number) => {
      const parts =
        '[data-trace], [data-testid="overlay"], [data-testid="saving"], [role="slider"], .dropdown-menu, .modal-dialog, .toast, ' +
        '.result-card, .groups, .cursor-bar, .cursor-place, .own-graph-reading, .axis-grip, [aria-label^="Axis of"], input, textarea';
      let [before, same] = ['', 0];
      for (let pictures = 0; pictures < limit && same < wanted; pictures++) {
        await new Promise((resolve) => requestAnimationFrame(resolve));
        const now = [...document.querySelectorAll<HTMLElement>(parts)]
          .map((part) => {
            const { x, y, width, height } = part.getBoundingClientRect();
            const own = part.cloneNode(false) as HTMLElement;
            const said = /^cursor-place|^own-graph-reading/.test(part.className) ? part.textContent : '';
            const typed = part instanceof HTMLInputElement ? part.value : '';
            return [own.outerHTML, said, typed, x, y, width, height].join('|');
          })
          .join('\n');
        const isMoving =
          document.querySelector('[aria-busy="true"]') !== null ||
          document
            .getAnimations()
            .some(
              ({ playState, effect }) =>
                playState === 'running' && effect?.getComputedTiming().iterations !== Infinity,
            );
        same = now === before && !isMoving ? same + 1 : 0;
        before = now;
      }
    },
    alike,
    most,
  );

/** Waits until a page has drawn what it was asked for last. */
export const drawn = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    for (let pictures = 0; pictures < 2; pictures++)
      await new Promise((resolve) => requestAnimationFrame(resolve));
  });
