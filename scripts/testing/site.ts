import { randomBytes } from 'node:crypto';
import { mkdirSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect, issueLinkToken } from '@heuristor/server';
import { type Browser } from 'puppeteer-core';
import { startBrowser } from '../browser';
import { type Service, startBridge, startServer, startStandIns } from '../system';
import { databaseIn, onCluster } from './databases';
import { type SiteRequest } from './siteRequest';

/** A database of its own, a server, simulated sensors, and a browser. */
export interface Site {
  address: string;
  /** Where the browser listens to whoever drives it. */
  browser: string;
  /** A folder for what is downloaded and brought in. */
  folder: string;
  signInToken(): Promise<string>;
  /** Ends the server like a loss of power. @returns when */
  kill(): Promise<number>;
  /** Ends the server in good order. */
  stop(): Promise<void>;
  restart(): Promise<void>;
  /** New stand-ins in place of the old ones: every apparatus stands as at the beginning. */
  freshStandIns(): Promise<void>;
  /** Starts the bridge to serial ports at these. */
  bridge(ports: string): void;
  close(): Promise<void>;
}

const data = '.test-data';

/**
 * Starts a site.
 * @param cluster address of the cluster’s own database
 * @param template the name of the database that its own begins as
 */
export async function openSite(
  cluster: string,
  template: string,
  request: Omit<SiteRequest, 'worker' | 'own'>,
): Promise<Site> {
  const name = `e2e_${randomBytes(6).toString('hex')}`;
  await onCluster(cluster, `create database ${name} template ${template}`);
  const address = databaseIn(cluster, name);
  mkdirSync(data, { recursive: true });
  const folder = mkdtempSync(join(tmpdir(), 'heuristor-'));
  const pace = { HEURISTOR_PACE: String(request.pace) };
  const start = (port: number) => startServer(address, port, data, { ...pace, ...request.settings });
  const opening: Promise<Browser> = startBrowser(join(folder, 'profile'), [
    // Menus and dialogs are there at once, as for those who ask their system for less motion.
    '--force-prefers-reduced-motion',
    ...(request.host === null ? [] : [`--host-resolver-rules=MAP ${request.host} 127.0.0.1`]),
  ]);
  let server = await start(0);
  const { port, secure } = server;
  let standIns = startStandIns(port, data, pace);
  const bridges: Service[] = [];
  const browser = await opening;
  const host = request.host ?? '127.0.0.1';
  return {
    address: secure === null ? `http://${host}:${port}` : `https://${host}:${secure.port}`,
    browser: browser.wsEndpoint(),
    folder,
    async signInToken() {
      const database = connect(address, 1, 10_000);
      return issueLinkToken(database).finally(() => database.destroy());
    },
    async kill() {
      const at = Date.now();
      server.child.kill('SIGKILL');
      await server.ended;
      return at;
    },
    stop: () => server.stop(),
    async restart() {
      server = await start(port);
    },
    async freshStandIns() {
      await standIns.stop();
      standIns = startStandIns(port, data, pace);
    },
    bridge(ports) {
      bridges.push(startBridge(port, data, ports));
    },
    async close() {
      await browser.close();
      for (const service of [...bridges, standIns, server]) await service.stop();
      await onCluster(cluster, `drop database if exists ${name} with (force)`);
    },
  };
}
