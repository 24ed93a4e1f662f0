import { type ToScreen, decodeFrames, frameKinds, livePath } from '@heuristor/contracts';
import { createInvestigation, onlyTeacher } from '@heuristor/server';
import { type Socket, io } from 'socket.io-client';
import { FakeDevice, helloOf } from '../../packages/server/src/testing/fakeDevice';
import { type Figure, milliseconds, quantile } from './figures';
import { residentMegabytes } from './processes';
import { type Site } from './site';

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const channels = 8;
const rate = 1000;
const screens = 40;
const browsers = 5;

/** From a sample's leaving the device to its being drawn: 8 channels × 1 kHz, 40 screens, 5 of them real browsers. */
export async function liveStream(site: Site): Promise<Figure[]> {
  const id = await createInvestigation(await onlyTeacher(), 'Live');
  const hello = {
    ...helloOf('Z1-Z'),
    channels: Array.from({ length: channels }, (_, c) => ({
      key: `c${c}`,
      quantity: 'time',
      symbol: `c${c}`,
      unit: 's',
      range: { low: -1e12, high: 1e12 },
      noise: 0,
    })),
    rates: { lowest: 1, highest: rate, usual: rate },
  };
  // Every reading is the moment at which it was made, so that any screen can tell its age.
  const device = await FakeDevice.connect(site.port, 'Z1-Z', () => Date.now() / 1000, hello);
  await site.use(id, 'Z1-Z');
  await site.api('PATCH', `/investigations/${id}`, { plan: { end: { kind: 'stopped' } } });
  await pause(500);
  const ages: number[] = [];
  const sockets: Socket[] = Array.from({ length: screens - browsers }, () => {
    const socket = io(site.address, {
      path: livePath,
      transports: ['websocket'],
      forceNew: true,
      extraHeaders: { Cookie: site.cookie },
    });
    socket.on('connect', () => socket.emit('say', { type: 'watch', investigations: [id], stage: null }));
    socket.on('say', (message: ToScreen) => void message);
    socket.on('frame', (bytes: Buffer) => {
      for (const { kind, values } of decodeFrames(new Uint8Array(bytes)))
        if (kind === frameKinds.run) ages.push(Date.now() - values[values.length - 1] * 1000);
    });
    return socket;
  });
  const browser = await site.browser();
  const pages = [];
  for (let i = 0; i < browsers; i++) {
    const page = await site.signedIn(browser);
    await page.goto(`${site.address}/investigations/${id}`);
    pages.push(page);
  }
  const windows = pages;
  // Five browsers at once take a while to start, which is not what is measured.
  await pause(5000);
  await site.api('POST', `/investigations/${id}/recording`, {});
  await pause(2000);
  for (const page of windows)
    await page.evaluate(() => {
      const drawn: number[] = [];
      new MutationObserver((changes) => {
        for (const { target } of changes) {
          const newest = Number((target as HTMLElement).dataset.newest);
          if (newest > 0) drawn.push(Date.now() - newest * 1000);
        }
      }).observe(document.body, { subtree: true, attributes: true, attributeFilter: ['data-newest'] });
      (globalThis as unknown as { drawn: number[] }).drawn = drawn;
    });
  await pause(8000);
  const memory = residentMegabytes(site.server.child.pid ?? 0);
  await site.api('DELETE', `/investigations/${id}/recording`, {});
  const drawn: number[] = [];
  for (const page of windows)
    drawn.push(...(await page.evaluate(() => (globalThis as unknown as { drawn: number[] }).drawn)));
  for (const socket of sockets) socket.close();
  await browser.close();
  device.vanish();
  return [
    {
      what: `sample sent → at ${screens} screens (${channels} channels × ${rate} Hz)`,
      measured: `95 % within ${milliseconds(quantile(ages, 0.95))}`,
      budget: '95 % within 150 ms, drawn',
    },
    {
      what: `sample sent → drawn in ${browsers} real browsers among them, on this same machine`,
      measured: `95 % within ${milliseconds(quantile(drawn, 0.95))}, median ${milliseconds(quantile(drawn, 0.5))}`,
      budget: '95 % within 150 ms',
    },
    {
      what: 'memory of the server while recording',
      measured: `${memory.toFixed(0)} MB`,
      budget: 'under 300 MB',
    },
  ];
}
