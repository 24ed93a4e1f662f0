import { openAsBlob } from 'node:fs';
import { mkdtemp, open, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { createInvestigation, onlyTeacher } from '@heuristor/server';
import { type Figure, milliseconds } from './figures';
import { residentMegabytes } from './processes';
import { type Site } from './site';

const pause = (time: number) => new Promise((resolve) => setTimeout(resolve, time));
const hugeBytes = 250e6;

/** Sends a file and waits until its preview can be shown. */
async function readIn(site: Site, name: string, body: BodyInit): Promise<string> {
  const id = await createInvestigation(await onlyTeacher(), `A file of ${name}`);
  const received = await fetch(`${site.address}/api/investigations/${id}/imports?name=large&zone=UTC`, {
    method: 'POST',
    headers: { Cookie: site.cookie, 'Content-Type': 'application/octet-stream' },
    body,
  });
  if (!received.ok) throw new Error(`the file was not received: ${await received.text()}`);
  const { id: importId } = (await received.json()) as { id: string };
  for (;;) {
    const { state } = (await (await site.api('GET', `/imports/${importId}`)).json()) as {
      state: { kind: string };
    };
    if (state.kind === 'ready') return importId;
    if (state.kind !== 'reading') throw new Error(`the file was not read: ${JSON.stringify(state)}`);
    await pause(20);
  }
}

/** How long other requests wait until told to end. */
function askingMeanwhile(site: Site): () => Promise<number[]> {
  const waits: number[] = [];
  let asking = true;
  const ask = (async () => {
    while (asking) {
      const began = performance.now();
      await (await site.api('GET', '/me')).text();
      waits.push(performance.now() - began);
      await pause(20);
    }
  })();
  // What ends the import ends this too, and is what should be told.
  ask.catch(() => undefined);
  return async () => {
    asking = false;
    await ask;
    return waits;
  };
}

/** A file of 10⁶ rows × 4 columns, while others go on asking. */
export async function largeImport(site: Site): Promise<Figure[]> {
  const rows = Array.from(
    { length: 1_000_000 },
    (_, i) =>
      `${(i * 0.001).toFixed(3)},${Math.sin(i * 0.001).toFixed(6)},${Math.cos(i * 0.002).toFixed(6)},${(i % 977) / 10}`,
  );
  const text = `t / s,x / m,y / m,F / N\n${rows.join('\n')}\n`;
  const waitsUntilNow = askingMeanwhile(site);
  const began = performance.now();
  const importId = await readIn(site, '10⁶ rows', text);
  const read = performance.now() - began;
  await (await site.api('POST', `/imports/${importId}/keep`)).text();
  const whole = performance.now() - began;
  const waits = await waitsUntilNow();
  return [
    {
      what: 'importing 10⁶ rows × 4 columns',
      measured: `${milliseconds(whole)}, ${milliseconds(read)} of it until the preview`,
      budget: '4 s',
    },
    {
      what: 'other requests meanwhile',
      measured: `the slowest of ${waits.length} within ${milliseconds(Math.max(...waits))}`,
      budget: '100 ms',
    },
  ];
}

/** Rows of a logger, by their numbers: times in seconds, or dates and times of a clock. */
const rowsOf = {
  'plain numbers': (i: number) =>
    `${(i * 0.01).toFixed(2)},${((i * 7) % 1000) / 100},${i % 10},${(i * 3) % 7}\n`,
  'dates and quotations': (i: number) =>
    `"${new Date(1.7e12 + i * 1000).toISOString()}","${((i * 7) % 1000) / 100}",${i % 10}\n`,
};

/** Files of 250 MB: the memory of the server while they are read, shown and stored. */
export async function hugeImports(site: Site): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'heuristor-'));
  const figures: Figure[] = [];
  try {
    for (const [name, rowOf] of Object.entries(rowsOf)) {
      const path = join(folder, 'huge.csv');
      const file = await open(path, 'w');
      await file.write(name === 'plain numbers' ? 't / s,a,b,c\n' : 'time,a,b\n');
      for (let bytes = 0, i = 0; bytes < hugeBytes;) {
        let part = '';
        while (part.length < 1 << 20) part += rowOf(i++);
        bytes += (await file.write(part)).bytesWritten;
      }
      await file.close();
      const { size } = await stat(path);
      const memory: number[] = [];
      const timer = setInterval(() => memory.push(residentMegabytes(site.server.child.pid ?? 0)), 50);
      const waitsUntilNow = askingMeanwhile(site);
      const began = performance.now();
      const importId = await readIn(site, name, await openAsBlob(path));
      const read = performance.now() - began;
      const stored = await site.api('POST', `/imports/${importId}/keep`);
      const state = await stored.text();
      const whole = performance.now() - began;
      const waits = await waitsUntilNow();
      clearInterval(timer);
      if (!stored.ok) throw new Error(state);
      figures.push(
        {
          what: `importing ${(size / 1e6).toFixed(0)} MB of ${name}`,
          measured: `${milliseconds(whole)}, ${milliseconds(read)} of it until the preview`,
          budget: 'none is set',
        },
        {
          what: '… memory of the server',
          measured: `${Math.max(...memory).toFixed(0)} MB at most`,
          budget: '500 MB',
        },
        {
          what: '… other requests meanwhile',
          measured: `the slowest of ${waits.length} within ${milliseconds(Math.max(...waits))}`,
          budget: '100 ms',
        },
      );
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
  return figures;
}
