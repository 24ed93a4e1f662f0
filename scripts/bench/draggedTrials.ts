import { setTimeout as pause } from 'node:timers/promises';
import { type Entry } from '@heuristor/core';
import { type Figure, milliseconds, quantile } from './figures';
import { dragging } from './screen';
import { type Site } from './site';
import { addTypedTable } from './typedTable';

const rows = 300;
const end = 3.5;

/** What a sheet of trials says of the rows in a region, ten results at a time. */
function tenOverRows(called: string): Entry[] {
  const on = { region: 'A', name: '' } as const;
  const y = { of: 'channel:c-y', against: 'channel:c-x' } as const;
  const fit = { ...on, ...y, kind: 'fit', showResiduals: false } as const;
  return [
    { ...on, kind: 'statistics', id: `${called}1`, of: 'channel:c-y' },
    { ...on, kind: 'statistics', id: `${called}2`, of: 'channel:c-x' },
    { ...on, ...y, kind: 'slope', id: `${called}3` },
    { ...on, ...y, kind: 'area', id: `${called}4` },
    { ...fit, id: `${called}5`, relation: 'line', weights: 'own' },
    { ...fit, id: `${called}6`, relation: 'line', weights: 'equal' },
    { ...fit, id: `${called}7`, relation: 'parabola', weights: 'own' },
    { ...fit, id: `${called}8`, relation: 'parabola', weights: 'relative' },
    { ...fit, id: `${called}9`, relation: 'power', weights: 'equal' },
    { ...on, kind: 'statistics', id: `${called}10`, of: 'channel:ratio' },
  ];
}

/** A region over the rows of a table, dragged in the real browser: from the pointer's move to the new numbers beside the plot. */
export async function draggedTrials(site: Site): Promise<Figure[]> {
  const region: Entry = {
    kind: 'region',
    id: 'A',
    name: '',
    letter: 'A',
    along: 'channel:c-x',
    start: 1.2,
    end,
  };
  return [
    await draggedOver(site, 10, [region, ...tenOverRows('a')], '100 ms'),
    await draggedOver(site, 20, [region, ...tenOverRows('a'), ...tenOverRows('b')], '250 ms'),
  ];
}

async function draggedOver(site: Site, results: number, entries: Entry[], budget: string): Promise<Figure> {
  const id = await addTypedTable(`${results} results over rows`, { rows, step: 0.01, entries });
  const browser = await site.browser();
  const screen = await site.signedIn(browser);
  await screen.goto(`${site.address}/investigations/${id}/trials`);
  await screen.waitForSelector('.result-card .card-value .btn-number', { timeout: 30_000 });
  await pause(2000);
  const delays = await dragging(screen);
  await browser.close();
  return {
    what: `region over ${rows} rows of trials dragged in the browser: ${results} results, from the move to new numbers`,
    measured: `median ${milliseconds(quantile(delays, 0.5))}, 95 % within ${milliseconds(quantile(delays, 0.95))}`,
    budget,
  };
}
