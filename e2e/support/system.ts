import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import puppeteer, { type Page } from 'puppeteer-core';
import { slowFrames } from './slowFrames';
import { type SiteAnswer, type SiteRequest } from '../../scripts/testing/siteRequest';

/** Everything as a teacher has it: database, server, simulated sensors, and a browser. */
export interface System {
  site: string;
  page: Page;
  downloads: string;
  /** Faults that the page reported; a test that ends with any has failed. */
  faults: string[];
  open(path: string): Promise<void>;
  /** A second window, e.g. for the stage. */
  newPage(path: string): Promise<Page>;
  signInToken(): Promise<string>;
  /** Lets so many seconds pass by the time of the sensors, as a hand does that waits for something to come to rest. */
  pass(seconds: number): Promise<void>;
  killServer(): Promise<number>;
  /** Ends the server in good order, as the start script does. */
  stopServer(): Promise<void>;
  restartServer(): Promise<void>;
  /** Starts the bridge to serial ports at these. */
  startBridge(ports: string): Promise<void>;
  close(): Promise<void>;
}

/** How many times as fast as on the wall time passes for sensors and what records them, where a test does not say otherwise. */
const usualPace = 5;

/**
 * A site for the tests of a file. As a rule it is one that others have used before, with their investigations and the demo's, and a
 * browser that knows nobody.
 * @param request `own`: a site of one's own, empty where `demo` is not set, for tests that kill something or change its settings
 */
export async function startSystem(request: Partial<Omit<SiteRequest, 'worker'>> = {}): Promise<System> {
  const keeper = process.env.HEURISTOR_TEST_SITES;
  if (keeper === undefined) throw new Error('HEURISTOR_TEST_SITES is not set; run the tests with “npm test”');
  const ask = async <T>(path: string, body = '', type = 'text/plain'): Promise<T> => {
    const headers = { 'Content-Type': type };
    const answer = await fetch(keeper + path, { method: 'POST', body, headers });
    if (!answer.ok) throw new Error(await answer.text());
    return (await answer.json()) as T;
  };
  const own = request.own ?? false;
  const whole: SiteRequest = {
    worker: process.env.JEST_WORKER_ID ?? '1',
    demo: !own,
    pace: usualPace,
    host: null,
    settings: {},
    ...request,
    own,
  };
  const {
    id,
    address,
    browser: endpoint,
    folder,
  } = await ask<SiteAnswer>('/sites', JSON.stringify(whole), 'application/json');
  const downloads = join(folder, `downloads-${Date.now()}`);
  mkdirSync(downloads, { recursive: true });
  const browser = await puppeteer.connect({
    browserWSEndpoint: endpoint,
    defaultViewport: { width: 1280, height: 800 },
    acceptInsecureCerts: true,
  });
  const context = await browser.createBrowserContext({
    downloadBehavior: { policy: 'allow', downloadPath: downloads },
  });
  const faults: string[] = [];
  const watched = async (): Promise<Page> => {
    const page = await context.newPage();
    await page.evaluateOnNewDocument(slowFrames);
    page.on('pageerror', (error) => faults.push(String(error)));
    page.on('console', (message) => {
      // Refusals of the server are expected in some tests and shown to people in words.
      if (
        message.type() === 'error' &&
        !/status of (4|503)|ERR_CONNECTION|ERR_EMPTY_RESPONSE|ERR_INTERNET|WebSocket connection/.test(
          message.text(),
        )
      )
        faults.push(message.text());
    });
    return page;
  };
  const page = await watched();
  return {
    site: address,
    page,
    downloads,
    faults,
    async open(path) {
      await page.bringToFront();
      await page.goto(address + path, { waitUntil: 'load' });
    },
    async newPage(path) {
      const second = await watched();
      await second.goto(address + path, { waitUntil: 'load' });
      return second;
    },
    pass: (seconds) => pause((seconds * 1000) / whole.pace),
    signInToken: () => ask(`/sites/${id}/token`),
    killServer: () => ask(`/sites/${id}/kill`),
    stopServer: () => ask(`/sites/${id}/stop`),
    restartServer: () => ask(`/sites/${id}/restart`),
    startBridge: (ports) => ask(`/sites/${id}/bridge`, ports),
    async close() {
      if (!own) await page.evaluate(freeDevices).catch(() => undefined);
      await context.close();
      await browser.disconnect();
      if (own) await ask(`/sites/${id}/close`);
    },
  };
}

/** Frees all devices: one that is used goes on sending, and the next test may want it. It runs in the page. */
async function freeDevices(): Promise<void> {
  const devices = (await (await fetch('/api/devices')).json()) as {
    code: string;
    use: { investigation: string } | null;
  }[];
  for (const { code, use } of devices)
    if (use !== null)
      await fetch(`/api/investigations/${use.investigation}/sensors/${code}`, { method: 'DELETE' });
}

const pause = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

/** Waits until a download is whole, and tells its path. */
export async function downloaded(folder: string, ending: string): Promise<string> {
  const files = await until(
    () => Promise.resolve(existsSync(folder) ? readdirSync(folder) : []),
    (found) => found.some((file) => file.endsWith(ending)),
    30,
  );
  const path = join(folder, files.find((file) => file.endsWith(ending)) ?? '');
  // It has its name a moment before all of it is there.
  let size = -1;
  await until(
    async () => {
      const before = size;
      await pause(50);
      size = statSync(path).size;
      return size > 0 && size === before;
    },
    (isWhole) => isWhole,
    30,
  );
  return path;
}

/** Waits until something is so; fails with what it last saw. */
export async function until<T>(look: () => Promise<T>, isSo: (seen: T) => boolean, seconds = 30): Promise<T> {
  let seen = await look();
  for (const end = Date.now() + seconds * 1000; !isSo(seen); seen = await look()) {
    if (Date.now() > end) throw new Error(`still ${JSON.stringify(seen)}`);
    await pause(50);
  }
  return seen;
}
