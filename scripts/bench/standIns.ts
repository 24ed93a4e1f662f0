import { readFileSync } from 'node:fs';
import { createInvestigation, onlyTeacher } from '@heuristor/server';
import { startStandIns } from '../system';
import { type Figure } from './figures';
import { processorSeconds, residentMegabytes } from './processes';
import { type Site } from './site';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Whether a process is the one that was started, or one that it started. */
const isOf = (pid: number) => (entry: string) =>
  Number(entry) === pid ||
  readFileSync(`/proc/${entry}/stat`, 'utf8').split(') ')[1].split(' ')[1] === String(pid);

/** What the simulated sensors cost: all on the link while nobody records, and one of them at 50 kHz. */
export async function standInsIdle(site: Site): Promise<Figure[]> {
  const standIns = startStandIns(site.port, '.test-data');
  const pid = standIns.child.pid ?? 0;
  await pause(4000);
  const before = processorSeconds(isOf(pid));
  await pause(10_000);
  const share = (processorSeconds(isOf(pid)) - before) / 10;
  const memory = residentMegabytes(pid);
  const id = await createInvestigation(await onlyTeacher(), 'A burst');
  await site.api('PUT', `/investigations/${id}/sensors/V2-L`);
  await site.api('PATCH', `/investigations/${id}/sensors/V2-L`, { rates: { voltage: 50_000 } });
  await site.api('PATCH', `/investigations/${id}`, { plan: { end: { kind: 'after', seconds: 2 } } });
  await pause(500);
  const run = (await (await site.api('POST', `/investigations/${id}/recording`, {})).json()) as {
    channels: { id: number }[];
  };
  await pause(4000);
  const values = new Float64Array(
    await (await site.api('GET', `/channels/${run.channels[0].id}/values`)).arrayBuffer(),
  );
  await standIns.stop();
  return [
    {
      what: 'seventeen simulated sensors on the link, nobody records',
      measured: `${(share * 100).toFixed(1)} % of a core, ${memory.toFixed(0)} MB`,
      budget: 'under 10 %, under 200 MB',
    },
    {
      what: 'a burst of 2 s at 50 kHz: readings that are missing',
      measured: `${100_001 - values.filter((value) => !Number.isNaN(value)).length} of 100001`,
      budget: '0',
    },
  ];
}
