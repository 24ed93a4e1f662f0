import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { issueLinkToken, openDatabase } from '@heuristor/server';
import pg from 'pg';
import { type Browser, type Page } from 'puppeteer-core';
import { startBrowser } from '../../scripts/browser';
import { startServer, startStandIns } from '../../scripts/system';

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
  killServer(): Promise<number>;
  /** Ends the server in good order, as the start script does. */
  stopServer(): Promise<void>;
  restartServer(): Promise<void>;
  close(): Promise<void>;
}

/** How a system is reached and set, where it is not as usual. */
interface Ways {
  /** A name under which it is opened, as from another machine: browsers let pages do less there. */
  host?: string;
  /** Settings of the server. */
  settings?: Record<string, string>;
  /** How many times as fast as on the wall time passes for sensors and what records them. */
  pace?: number;
}

export async function startSystem(
  prepare: () => Promise<void> = async () => undefined,
  { host, settings: further = {}, pace = 1 }: Ways = {},
): Promise<System> {
  const settings = { HEURISTOR_PACE: String(pace), ...further };
  const cluster = process.env.HEURISTOR_TEST_DATABASE;
  if (cluster === undefined)
    throw new Error('HEURISTOR_TEST_DATABASE is not set; run the tests with “npm test”');
  const name = `e2e_${randomBytes(6).toString('hex')}`;
  const client = new pg.Client({ connectionString: cluster });
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  const address = cluster.replace(/\/[^/]*$/, `/${name}`);
  const database = await openDatabase(address);
  await prepare();

  const data = '.test-data';
  mkdirSync(data, { recursive: true });
  let server = await startServer(address, 0, data, settings);
  const { port } = server;
  const standIns = startStandIns(port, data, { HEURISTOR_PACE: String(pace) });
  const site =
    server.secure === null
      ? `http://${host ?? '127.0.0.1'}:${port}`
      : `https://${host ?? '127.0.0.1'}:${server.secure.port}`;
  const folder = mkdtempSync(join(tmpdir(), 'heuristor-'));
  const downloads = join(folder, 'downloads');
  mkdirSync(downloads);
  const browser: Browser = await startBrowser(
    join(folder, 'profile'),
    host === undefined ? [] : [`--host-resolver-rules=MAP ${host} 127.0.0.1`],
  );
  const session = await browser.target().createCDPSession();
  await session.send('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: downloads,
    eventsEnabled: false,
  });
  const faults: string[] = [];
  const watched = async (): Promise<Page> => {
    const page = await browser.newPage();
    page.on('pageerror', (error) => faults.push(String(error)));
    page.on('console', (message) => {
      // Refusals of the server are expected in some tests and shown to people in words.
      if (
        message.type() === 'error' &&
        !/status of (4|503)|ERR_CONNECTION|ERR_INTERNET|WebSocket connection/.test(message.text())
      )
        faults.push(message.text());
    });
    return page;
  };
  const page = await watched();
  return {
    site,
    page,
    downloads,
    faults,
    async open(path) {
      await page.bringToFront();
      await page.goto(site + path, { waitUntil: 'load' });
    },
    async newPage(path) {
      const second = await watched();
      await second.goto(site + path, { waitUntil: 'load' });
      return second;
    },
    signInToken: issueLinkToken,
    async killServer() {
      const ended = new Promise((resolve) => server.child.once('exit', resolve));
      const at = Date.now();
      server.child.kill('SIGKILL');
      await ended;
      return at;
    },
    async stopServer() {
      await server.stop();
    },
    async restartServer() {
      server = await startServer(address, port, data, settings);
    },
    async close() {
      await browser.close();
      await standIns.stop();
      await server.stop();
      await database.close();
    },
  };
}

/** Waits until a download is whole, and tells its path. */
export async function downloaded(folder: string, ending: string): Promise<string> {
  for (let tries = 0; tries < 100; tries++) {
    const found = existsSync(folder) ? readdirSync(folder).find((file) => file.endsWith(ending)) : undefined;
    if (found !== undefined) return join(folder, found);
    await pause(100);
  }
  throw new Error(`no ${ending} was downloaded`);
}

export const pause = (milliseconds: number) =>
  new Promise<void>((resolve) => setTimeout(resolve, milliseconds));
