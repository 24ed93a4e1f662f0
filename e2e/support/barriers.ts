import { readFileSync } from 'node:fs';
import { type Page } from 'puppeteer-core';

const axe = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

/** What an accessibility checker calls critical or serious on a page as it stands. */
export async function barriersOn(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async () => {
    interface Found {
      id: string;
      impact: string;
      nodes: { html: string }[];
    }
    const { axe: checker } = globalThis as unknown as {
      axe: { run: () => Promise<{ violations: Found[]; passes: Found[] }> };
    };
    const { violations, passes } = await checker.run();
    if (!passes.some(({ id }) => id === 'color-contrast')) return ['the checker has not looked at the page'];
    return violations
      .filter(({ impact }) => impact === 'critical' || impact === 'serious')
      .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 90)).join(' | ')}`);
  });
}
