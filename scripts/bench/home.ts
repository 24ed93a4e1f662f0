import { performance } from 'node:perf_hooks';
import { createInvestigation, onlyTeacher } from '@heuristor/server';
import { type Figure, milliseconds, quantile } from './figures';
import { type Site } from './site';

const investigations = 1000;
const asked = 20;

/** The list of a school year: how long it takes the server, how many bytes it is, and when a person sees it. */
export async function homeOfAYear(site: Site): Promise<Figure[]> {
  for (let i = 0; i < investigations; i++)
    await createInvestigation(await onlyTeacher(), `Buoy no. ${i + 1}`);
  const times: number[] = [];
  let bytes = 0;
  for (let i = 0; i < asked; i++) {
    const began = performance.now();
    const answer = await site.api('GET', '/investigations');
    bytes = (await answer.arrayBuffer()).byteLength;
    times.push(performance.now() - began);
  }
  const page = await site.signedIn(await site.browser());
  const seen: number[] = [];
  for (let i = 0; i < 5; i++) {
    const began = performance.now();
    await page.goto(site.address, { waitUntil: 'domcontentloaded' });
    await page.waitForSelector('.home-row');
    seen.push(performance.now() - began);
  }
  return [
    {
      what: `the list of ${investigations} investigations, from the server`,
      measured: `${milliseconds(quantile(times, 0.5))}, ${(bytes / 1000).toFixed(0)} kB`,
      budget: '100 ms, 100 kB',
    },
    { what: '… seen on the screen', measured: milliseconds(quantile(seen, 0.5)), budget: 'none is set' },
  ];
}
