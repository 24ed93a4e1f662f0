import { type Page } from 'puppeteer-core';

/**
 * The values on the cards of which a person sees only a part: some of their letters lie beyond what holds and hides them. Cards are
 * scrolled to first, so that all of them are laid out.
 */
export const cutValues = (page: Page): Promise<string[]> =>
  page.$$eval('.result-card span[title^="all digits"]', async (values) => {
    const found: string[] = [];
    for (const value of values) {
      value.scrollIntoView({ block: 'center' });
      await new Promise((resolve) => requestAnimationFrame(resolve));
      const letters = document.createRange();
      letters.selectNodeContents(value);
      const box = letters.getBoundingClientRect();
      for (let holder = value.parentElement; holder !== null; holder = holder.parentElement) {
        const { overflowX, contentVisibility } = getComputedStyle(holder);
        if (overflowX === 'visible' && contentVisibility !== 'auto') continue;
        const room = holder.getBoundingClientRect();
        if (box.left < room.left - 1 || box.right > room.right + 1) found.push(value.textContent ?? '');
        break;
      }
    }
    return found;
  });
