import { randomBytes } from 'node:crypto';
import { mkdirSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { issueLinkToken, openDatabase } from '@heuristor/server';
import { type Browser, type Page } from 'puppeteer-core';
import { startBrowser } from '../browser';
import { type Cluster, startCluster } from '../cluster';
import { type Service, startServer } from '../system';
import { databaseIn, onCluster } from '../testing/databases';

/** The real server on a new database, and a way to speak to it. */
export interface Site {
  address: string;
  port: number;
  cookie: string;
  server: Service;
  api(method: string, path: string, body?: object): Promise<Response>;
  /** Lets a device in and uses it. */
  use(investigation: string, code: string): Promise<void>;
  browser(): Promise<Browser>;
  signedIn(browser: Browser): Promise<Page>;
  close(): Promise<void>;
}

export async function openSite(ending: AbortSignal): Promise<Site> {
  const data = resolve('.test-data');
  mkdirSync(data, { recursive: true });
  const cluster: Cluster = await startCluster(data, { signal: ending });
  const name = `bench_${randomBytes(5).toString('hex')}`;
  await onCluster(cluster.address, `create database ${name}`);
  const databaseAddress = databaseIn(cluster.address, name);
  const database = await openDatabase(databaseAddress);
  const server = await startServer(databaseAddress, 0, data);
  const address = `http://127.0.0.1:${server.port}`;
  const answer = await fetch(`${address}/api/sign-in`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ token: await issueLinkToken() }),
  });
  const cookie = answer.headers.getSetCookie()[0].split(';')[0];
  const api: Site['api'] = (method, path, body) =>
    fetch(`${address}/api${path}`, {
      method,
      headers: { Cookie: cookie, ...(body === undefined ? {} : { 'Content-Type': 'application/json' }) },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  const browsers: Browser[] = [];
  return {
    address,
    port: server.port,
    cookie,
    server,
    api,
    async use(investigation, code) {
      // A device of these scripts shows no secret of the program, so it is let in like one on another machine.
      await api('POST', `/devices/${code}/admission`);
      const answer = await api('PUT', `/investigations/${investigation}/sensors/${code}`);
      if (!answer.ok) throw new Error(`${code} is not used: ${await answer.text()}`);
    },
    async browser() {
      const browser = await startBrowser(mkdtempSync(join(tmpdir(), 'heuristor-')));
      browsers.push(browser);
      return browser;
    },
    async signedIn(browser) {
      const page = await browser.newPage();
      // The loader of these scripts names functions by a helper that a page does not have.
      await page.evaluateOnNewDocument('globalThis.__name = (named) => named');
      const [key, value] = cookie.split('=');
      await browser.setCookie({ name: key, value, domain: '127.0.0.1', path: '/' });
      return page;
    },
    async close() {
      for (const browser of browsers) await browser.close();
      await server.stop();
      await database.close();
      await cluster.stop();
    },
  };
}
