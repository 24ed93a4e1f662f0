import { performance } from 'node:perf_hooks';
import { setTimeout as pause } from 'node:timers/promises';
import { type TrialColumn, emptyTable, emptyWorkings, withLooks } from '@heuristor/contracts';
import {
  createInvestigation,
  findDocument,
  onlyTeacher,
  readInvestigation,
  writeDocument,
} from '@heuristor/server';
import { tenResults } from './computation';
import { type Figure } from './figures';
import { addSampledRun, wave } from './runs';
import { type Site } from './site';

const runs = 300;
const readings = 10_000;
const columns = 20;
const interval = 0.01;
const longest = 900_000;

/** A table over many runs that no screen holds: the first time it is opened, and when it was seen before. */
export async function manyTrials(site: Site): Promise<Figure[]> {
  const teacher = await onlyTeacher();
  const id = await createInvestigation(teacher, 'Three hundred runs');
  for (let i = 0; i < runs; i++)
    await addSampledRun(id, readings, interval, { x: (t) => (1 + i / runs) * wave(t) + 0.001 * i });
  const made = await readInvestigation(teacher, id);
  const entries = tenResults(readings * interval);
  const workings = withLooks({ ...emptyWorkings, entries }, made.runs, ({ number }) => ({
    shown: number === runs,
  }));
  await writeDocument(teacher, id, 'workings', made.workingsVersion, workings);
  const { version } = await findDocument(teacher, id, 'trials');
  const fields = ['slope', 'mean', 'sd', 'min', 'max', 'median', 'range'];
  const chosen = entries
    .flatMap((entry) => fields.map((field) => ({ entry: entry.id, field })))
    .slice(0, columns)
    .map(({ entry, field }, i): TrialColumn => ({
      kind: 'result',
      key: `column-${i}`,
      entry,
      field,
      name: '',
      unit: '',
      hidden: false,
    }));
  await writeDocument(teacher, id, 'trials', version, {
    format: 1,
    tables: [{ ...emptyTable, id: 'table-1', name: 'all', columns: chosen }],
  });
  const page = await site.signedIn(await site.browser());
  await page.goto(`${site.address}/`);
  const opened = async () => {
    const began = performance.now();
    await page.goto(`${site.address}/investigations/${id}/trials`);
    // Asked again and again: one question must not wait as long as this may take.
    for (let isDone = false; !isDone && performance.now() - began < longest;) {
      await pause(100);
      isDone = await page.evaluate((count: number) => {
        const words = document.querySelector('.trials-foot [role="status"]')?.textContent ?? '';
        const numbers = document.querySelectorAll('.trial-grid tbody td.number').length;
        return words.startsWith(`${count} rows`) && !words.includes('being worked out') && numbers > 0;
      }, runs);
    }
    return (performance.now() - began) / 1000;
  };
  const first = await opened();
  await page.goto(`${site.address}/`);
  const again = await opened();
  return [
    {
      what: `a table over ${runs} runs of ${readings} readings, opened for the first time`,
      measured: `${first.toFixed(1)} s`,
      budget: '10 s',
    },
    { what: '… seen before', measured: `${again.toFixed(1)} s`, budget: '2 s' },
  ];
}
