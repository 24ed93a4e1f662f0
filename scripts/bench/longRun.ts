import { createInvestigation, onlyTeacher } from '@heuristor/server';
import { FakeDevice, helloOf } from '../../packages/server/src/testing/fakeDevice';
import { say } from '../plain';
import { type Figure } from './figures';
import { residentMegabytes } from './processes';
import { type Site } from './site';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const channels = 8;
const rate = 1000;
const memoryBudget = 300;
/** What grows with a run shows only in what is left after the first part, in which everything finds its size. */
const settledAfter = 0.2;

/** A run of 8 channels × 1 kHz that a bench looks at: every reading is there afterwards, and the server's memory stays flat. */
export async function longRun(site: Site, seconds: number): Promise<Figure[]> {
  const id = await createInvestigation(await onlyTeacher(), 'A long run');
  const hello = {
    ...helloOf('W1-W'),
    channels: Array.from({ length: channels }, (_, c) => ({
      key: `c${c}`,
      quantity: 'voltage',
      symbol: `U${c + 1}`,
      unit: 'V',
      range: { low: -1e6, high: 1e6 },
      noise: 0.001,
    })),
    rates: { lowest: 1, highest: rate, usual: rate },
  };
  // A reading tells its own place in the stream.
  const device = await FakeDevice.connect(site.port, 'W1-W', (time) => Math.round(time * rate), hello);
  await site.use(id, 'W1-W');
  await site.api('PATCH', `/investigations/${id}`, { plan: { end: { kind: 'after', seconds } } });
  const browser = await site.browser();
  const page = await site.signedIn(browser);
  await page.goto(`${site.address}/investigations/${id}`);
  await pause(1500);
  const started = await site.api('POST', `/investigations/${id}/recording`, {});
  const { id: runId, channels: stored } = (await started.json()) as {
    id: string;
    channels: { id: number; symbol: string }[];
  };
  const memory: number[] = [];
  const every = Math.max(seconds / 60, 1);
  for (let minute = 0; minute * every < seconds; minute++) {
    await pause(every * 1000);
    memory.push(residentMegabytes(site.server.child.pid ?? 0));
    if (minute % 10 === 9)
      say(`  after ${Math.round((minute + 1) * every)} s: ${memory[minute].toFixed(0)} MB`);
  }
  const run = await ended(site, id, runId);
  const drawn = await page.evaluate(() => document.body.innerText.includes('Run 2 is ready'));
  await browser.close();
  device.vanish();
  let [missing, wrong] = [0, 0];
  const expected = seconds * rate + 1;
  for (const { id: channel } of stored) {
    const answer = await site.api('GET', `/channels/${channel}/values`);
    const values = new Float64Array(await answer.arrayBuffer());
    missing += Math.max(expected - values.length, 0);
    for (let i = 0; i < values.length; i++)
      if (Number.isNaN(values[i])) missing++;
      else if (values[i] !== values[0] + i) wrong++;
  }
  const settled = memory.slice(Math.floor(memory.length * settledAfter));
  const half = Math.floor(settled.length / 2);
  const mean = (part: number[]) => part.reduce((sum, value) => sum + value, 0) / part.length;
  return [
    {
      what: `a run of ${seconds} s with ${channels} channels × ${rate} Hz: readings missing, readings in the wrong place`,
      measured: `${missing} and ${wrong} of ${expected * channels}; ${run.gaps.length} gaps, ${run.notes.length} notes${drawn ? '' : '; its bench stands still'}`,
      budget: '0 and 0',
    },
    {
      what: 'memory of the server meanwhile',
      measured: `at most ${Math.max(...memory).toFixed(0)} MB; ${mean(settled.slice(0, half)).toFixed(0)} MB in the earlier half, ${mean(settled.slice(half)).toFixed(0)} MB in the later one`,
      budget: `under ${memoryBudget} MB, flat`,
    },
  ];
}

/** The run, once it has ended and its blocks are joined. */
async function ended(site: Site, investigation: string, runId: string) {
  for (let tries = 0; tries < 600; tries++) {
    await pause(500);
    const { runs } = (await (await site.api('GET', `/investigations/${investigation}`)).json()) as {
      runs: { id: string; state: string; gaps: unknown[]; notes: string[] }[];
    };
    const run = runs.find((candidate) => candidate.id === runId);
    if (run !== undefined && run.state !== 'recording') {
      for (const note of run.notes) say(`  ${note}`);
      return run;
    }
  }
  throw new Error('the run did not end');
}
