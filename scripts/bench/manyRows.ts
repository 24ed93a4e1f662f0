import { performance } from 'node:perf_hooks';
import { type TrialColumn, type TypedRow, emptyPage, emptyTable, panelOf } from '@heuristor/contracts';
import {
  changeInvestigation,
  createInvestigation,
  findDocument,
  onlyTeacher,
  writeDocument,
} from '@heuristor/server';
import { type Figure, milliseconds } from './figures';
import { framesText, watchFrames } from './graphs';
import { type Site } from './site';

const rows = 10_000;

/** A table of as many rows as there can be: how long it takes to open, whether it scrolls, and how soon what is typed stands there. */
export async function manyRows(site: Site): Promise<Figure[]> {
  const teacher = await onlyTeacher();
  const id = await createInvestigation(teacher, 'Ten thousand rows');
  const conditions = ['x', 'y'].map((name) => ({ key: name, name, kind: 'number' as const, unit: 'm' }));
  await changeInvestigation(id, { plan: { conditions } });
  const { version } = await findDocument(teacher, id, 'trials');
  const base = { name: '', unit: '', hidden: false };
  const columns: TrialColumn[] = [
    ...conditions.map(({ key }) => ({
      ...base,
      kind: 'condition' as const,
      key: `c-${key}`,
      condition: key,
    })),
    { ...base, kind: 'formula', key: 'ratio', formula: 'y/x' },
  ];
  const typed = Array.from({ length: rows }, (_, i): TypedRow => {
    const x = 1 + i / 1000;
    return {
      id: `t${i}`,
      name: `row ${i}`,
      cells: {
        'c-x': { value: x, u: 0.01, unit: 'm' },
        'c-y': { value: 2 * x + 0.02 * Math.sin(37 * i), u: 0.02, unit: 'm' },
      },
    };
  });
  const page = { ...emptyPage, horizontal: 'channel:c-x' as const, panels: [panelOf('channel:c-y')] };
  await writeDocument(teacher, id, 'trials', version, {
    format: 1,
    tables: [
      { ...emptyTable, id: 'table-1', name: 'all', columns, typed, sheet: { entries: [], pages: [page] } },
    ],
  });
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
  const took = screen.evaluate(async () => {
    const start = performance.now();
    const ratio = () =>
      document
        .querySelector('input[aria-label="y of row 3"]')
        ?.closest('tr')
        ?.querySelector('td:last-child')
        ?.textContent.startsWith('20.00') === true;
    while (!ratio() && performance.now() - start < 60_000)
      await new Promise((resolve) => requestAnimationFrame(resolve));
    return performance.now() - start;
  });
  await screen.keyboard.press('Enter');
  const typedIn = await took;
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
