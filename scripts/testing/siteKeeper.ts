import { createServer } from 'node:http';
import { type AddressInfo } from 'node:net';
import { openDatabase } from '@heuristor/server';
import pg from 'pg';
import { loadDemoData } from '../demoData';
import { type Site, openSite } from './site';
import { type SiteAnswer, type SiteWish, wishSchema } from './siteWish';

/** Keeps the sites that browser tests drive, and does to them what a test asks for over HTTP on this machine. */
export interface SiteKeeper {
  address: string;
  close(): Promise<void>;
}

/** Makes a database that sites of tests begin as. */
async function makeTemplate(cluster: string, name: string, fill: () => Promise<void>): Promise<void> {
  const client = new pg.Client({ connectionString: cluster });
  await client.connect();
  try {
    await client.query(`drop database if exists ${name} with (force)`);
    await client.query(`create database ${name}`);
    const database = await openDatabase(cluster.replace(/\/[^/]*$/, `/${name}`));
    await fill().finally(() => database.close());
  } finally {
    await client.end();
  }
}

/**
 * Starts a keeper of sites. One that is shared goes on between one file of tests and the next, with new stand-ins; its investigations
 * stay.
 * @param cluster address of the database cluster
 */
export async function startSiteKeeper(cluster: string): Promise<SiteKeeper> {
  await makeTemplate(cluster, 'e2e_empty', () => Promise.resolve());
  await makeTemplate(cluster, 'e2e_demo', loadDemoData);
  const sites: Promise<Site>[] = [];
  const shared = new Map<string, number>();

  const begin = async ({ worker, own, ...wish }: SiteWish): Promise<SiteAnswer> => {
    const key = `${worker} at ${wish.pace}`;
    const known = own ? undefined : shared.get(key);
    const id = known ?? sites.length;
    if (known === undefined) sites.push(openSite(cluster, wish.demo ? 'e2e_demo' : 'e2e_empty', wish));
    else await (await sites[id]).freshStandIns();
    if (!own) shared.set(key, id);
    const { address, browser, folder } = await sites[id];
    return { id, address, browser, folder };
  };
  const deeds: Record<string, (site: Site, argument: string) => Promise<unknown>> = {
    token: (site) => site.signInToken(),
    kill: (site) => site.kill(),
    stop: (site) => site.stop(),
    restart: (site) => site.restart(),
    bridge: (site, ports) => site.bridge(ports),
    close: (site) => site.close(),
  };
  const answer = async (path: string, body: string): Promise<unknown> => {
    if (path === '/sites') return begin(wishSchema.parse(JSON.parse(body)));
    const [, id, deed] = /^\/sites\/(\d+)\/(\w+)$/.exec(path) ?? [];
    if (!(deed in deeds)) throw new Error(`nothing is known at ${path}`);
    return deeds[deed](await sites[Number(id)], body);
  };
  const server = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      answer(request.url ?? '', Buffer.concat(chunks).toString()).then(
        (said) => response.end(JSON.stringify(said ?? null)),
        (error: unknown) => response.writeHead(500).end(String(error)),
      );
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    async close() {
      server.close();
      await Promise.all(sites.map(async (site) => (await site).close().catch(() => undefined)));
    },
  };
}
