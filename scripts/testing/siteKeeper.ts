import { openDatabase } from '@heuristor/server';
import express from 'express';
import { type AddressInfo } from 'node:net';
import { loadDemoData } from '../demoData';
import { databaseIn, onCluster } from './databases';
import { type Site, openSite } from './site';
import { type SiteAnswer, type SiteRequest, siteRequestSchema } from './siteRequest';

/** Makes a database that sites of tests begin as. */
async function makeTemplate(cluster: string, name: string, fill: () => Promise<void>): Promise<void> {
  await onCluster(cluster, `drop database if exists ${name} with (force)`);
  await onCluster(cluster, `create database ${name}`);
  const database = await openDatabase(databaseIn(cluster, name));
  await fill().finally(() => database.close());
}

/** What a test may have done to a site, by the last part of the address that it asks. */
const actions = new Map<string, (site: Site, argument: string) => unknown>([
  ['token', (site) => site.signInToken()],
  ['kill', (site) => site.kill()],
  ['stop', (site) => site.stop()],
  ['restart', (site) => site.restart()],
  ['bridge', (site, ports) => site.bridge(ports)],
  ['close', (site) => site.close()],
]);

/**
 * Keeps the sites that browser tests drive as long as work goes on, and does to them what a test asks for over HTTP on this machine.
 * One that is shared goes on between one file of tests and the next, with new stand-ins; its investigations stay.
 * @param cluster address of the database cluster
 * @param work is given the setting that tells tests where to ask
 */
export async function withSites<T>(
  cluster: string,
  work: (environment: Record<string, string>) => Promise<T>,
): Promise<T> {
  await makeTemplate(cluster, 'e2e_empty', () => Promise.resolve());
  await makeTemplate(cluster, 'e2e_demo', loadDemoData);
  const sites: Promise<Site>[] = [];
  const shared = new Map<string, number>();

  const begin = async (request: SiteRequest): Promise<SiteAnswer> => {
    const key = JSON.stringify(request);
    const known = request.own ? undefined : shared.get(key);
    const id = known ?? sites.length;
    if (known === undefined) sites.push(openSite(cluster, request.demo ? 'e2e_demo' : 'e2e_empty', request));
    else await (await sites[id]).freshStandIns();
    if (!request.own) shared.set(key, id);
    const { address, browser, folder } = await sites[id];
    return { id, address, browser, folder };
  };

  const app = express();
  app.post('/sites', express.json(), async ({ body }, response) => {
    response.json(await begin(siteRequestSchema.parse(body)));
  });
  app.post('/sites/:id/:action', express.text(), async ({ params, body }, response) => {
    const act = actions.get(params.action);
    if (act === undefined) response.status(404).end(`There is no “${params.action}”.`);
    else response.json((await act(await sites[Number(params.id)], String(body))) ?? null);
  });
  const server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const { port } = server.address() as AddressInfo;
  try {
    return await work({ HEURISTOR_TEST_SITES: `http://127.0.0.1:${port}` });
  } finally {
    server.close();
    await Promise.all(sites.map(async (site) => (await site).close().catch(() => undefined)));
  }
}
