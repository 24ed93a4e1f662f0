import { readFileSync, readdirSync } from 'node:fs';
import { type WorkingsDocument, emptyPage, emptyWorkings, panelOf } from '@heuristor/contracts';
import { channelRef } from '@heuristor/core';
import { createInvestigation, onlyTeacher, writeDocument } from '@heuristor/server';
import { type Browser, type Page } from 'puppeteer-core';
import { FakeDevice, helloOf } from '../../packages/server/src/testing/fakeDevice';
import { type Figure, milliseconds, quantile } from './figures';
import { parentOf, processorSeconds, residentMegabytes } from './processes';
import { addSampledRun, wave } from './runs';
import { type Site } from './site';

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Counts how long frames take from here on. */
export async function watchFrames(page: Page): Promise<() => Promise<number[]>> {
  await page.evaluate(() => {
    const lengths: number[] = [];
    let last = performance.now();
    const frame = () => {
      const now = performance.now();
      lengths.push(now - last);
      last = now;
      requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
    (globalThis as unknown as { lengths: number[] }).lengths = lengths;
  });
  return () => page.evaluate(() => (globalThis as unknown as { lengths: number[] }).lengths.splice(0));
}

/** A browser draws every 16.7 ms; a frame that takes longer than this has missed a beat. */
const missed = 25;

export const framesText = (lengths: readonly number[]): string => {
  const share = lengths.filter((length) => length > missed).length / lengths.length;
  return `95 % of frames within ${milliseconds(quantile(lengths, 0.95))} of each other (a browser draws every 16.7 ms), ${(100 * share).toFixed(1)} % missed a beat, the longest ${milliseconds(Math.max(...lengths))}`;
};

/** The processes of a browser: its own, and what that has started, however far down. */
export const ofBrowser = (browser: Browser) => {
  const first = String(browser.process()?.pid);
  return (pid: string) => {
    for (let at = pid; Number(at) > 1; at = parentOf(at)) if (at === first) return true;
    return false;
  };
};

/** Memory of the largest process that draws pages, in megabytes: what the page and its workers hold. */
export function pageMegabytes(browser: Browser): number {
  const isOwn = ofBrowser(browser);
  const sizes = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        if (!isOwn(pid) || !readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer'))
          return [];
        return [residentMegabytes(Number(pid))];
      } catch {
        // It has ended in the meantime.
        return [];
      }
    });
  return Math.max(...sizes);
}

/** Thirty runs at once: the pointer moved over them, and a region dragged. */
export async function thirtyRuns(site: Site): Promise<Figure[]> {
  const id = await createInvestigation(await onlyTeacher(), 'Thirty runs');
  for (let i = 0; i < 30; i++)
    await addSampledRun(id, 10_000, 0.02, { x: (t) => wave(t + 0.2 * i) + 0.01 * i });
  const browser = await site.browser();
  const page = await site.signedIn(browser);
  await page.goto(`${site.address}/investigations/${id}`);
  await page.waitForSelector('.trace[data-newest]', { timeout: 30_000 });
  await pause(2500);
  const box = await (await page.waitForSelector('[data-testid="overlay"]'))?.boundingBox();
  if (box === null || box === undefined) throw new Error('no traces');
  const frames = await watchFrames(page);
  const y = box.y + box.height / 2;
  for (let i = 0; i < 120; i++) {
    await page.mouse.move(box.x + 20 + i * 4, y);
    await pause(16);
  }
  const hover = await frames();
  await page.mouse.move(box.x + 60, y);
  await pause(300);
  await frames();
  await page.mouse.down();
  for (let i = 0; i < 100; i++) {
    await page.mouse.move(box.x + 70 + i * 4, y);
    await pause(16);
  }
  const drag = await frames();
  await page.mouse.up();
  await browser.close();
  return [
    {
      what: '30 shown runs of 10⁴ points: the pointer moved over them, with what they are there',
      measured: framesText(hover),
      budget: '60 frames a second: within 16.7 ms',
    },
    {
      what: '30 shown runs of 10⁴ points: a region dragged',
      measured: framesText(drag),
      budget: '60 frames a second: within 16.7 ms',
    },
  ];
}

const [channels, rate, traces] = [8, 1000, 4];

/** Eight channels at 1 kHz that are recorded, drawn live in four traces. */
export async function liveTraces(site: Site): Promise<Figure[]> {
  const id = await createInvestigation(await onlyTeacher(), 'Four traces live');
  const keys = Array.from({ length: channels }, (_, c) => `c${c}`);
  const hello = {
    ...helloOf('W1-W'),
    channels: keys.map((key) => ({
      key,
      quantity: 'voltage',
      symbol: key,
      unit: 'V',
      range: { low: -10, high: 10 },
      noise: 0.001,
    })),
    rates: { lowest: 1, highest: rate, usual: rate },
  };
  const device = await FakeDevice.connect(
    site.port,
    'W1-W',
    (t) => Math.sin(9 * t) + 0.01 * Math.sin(7e4 * t),
    hello,
  );
  await site.use(id, 'W1-W');
  await site.api('PATCH', `/investigations/${id}`, { plan: { end: { kind: 'stopped' } } });
  const each = channels / traces;
  const panels = Array.from({ length: traces }, (_, i) => ({
    ...panelOf(channelRef(keys[each * i])),
    series: keys.slice(each * i, each * (i + 1)).map(channelRef),
  }));
  const workings: WorkingsDocument = { ...emptyWorkings, pages: [{ ...emptyPage, panels }] };
  await writeDocument(await onlyTeacher(), id, 'workings', 1, workings);
  await pause(500);
  const browser = await site.browser();
  const page = await site.signedIn(browser);
  await page.goto(`${site.address}/investigations/${id}`);
  await pause(3000);
  await site.api('POST', `/investigations/${id}/recording`, {});
  await pause(4000);
  const frames = await watchFrames(page);
  const before = processorSeconds(ofBrowser(browser));
  await pause(10_000);
  const share = (processorSeconds(ofBrowser(browser)) - before) / 10;
  const lengths = await frames();
  await site.api('DELETE', `/investigations/${id}/recording`, {});
  await browser.close();
  device.vanish();
  const dropped = lengths.filter((length) => length > 33.4).length;
  return [
    {
      what: `live ${channels} channels × ${rate} Hz in ${traces} traces`,
      measured: `${dropped} of ${lengths.length} frames dropped (longer than two), ${framesText(lengths)}; ${(100 * share).toFixed(0)} % of a core in all processes of the browser`,
      budget: 'no dropped frames, under 60 % of a core',
    },
  ];
}
