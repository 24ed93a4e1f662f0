import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { type Cluster, startCluster } from './cluster';

const folder = mkdtempSync(join(tmpdir(), 'heuristor-cluster-'));
let cluster: Cluster | null = null;

afterEach(async () => {
  await cluster?.stop();
  cluster = null;
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function ask(address: string, query: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: address });
  await client.connect();
  try {
    return (await client.query(query)).rows as unknown[];
  } finally {
    await client.end();
  }
}

test('a database that runs goes on when all is being ended, until it is told to end: the server still has to store', async () => {
  const ending = new AbortController();
  cluster = await startCluster(folder, { signal: ending.signal });
  await ask(cluster.address, 'create table kept (value int)');
  let hasEnded = false;
  void cluster.ended.then(() => (hasEnded = true));
  ending.abort();
  await ask(cluster.address, 'insert into kept values (1)');
  await new Promise((resolve) => setTimeout(resolve, 500));
  await ask(cluster.address, 'insert into kept values (2)');
  expect(hasEnded).toBe(false);
  await cluster.stop();
  await cluster.ended;
  expect(hasEnded).toBe(true);
});

test('a start that is broken off leaves nothing running', async () => {
  const ending = new AbortController();
  const starting = startCluster(folder, { signal: ending.signal });
  setTimeout(() => ending.abort(), 30);
  await expect(starting).rejects.toThrow();
  // The next start finds the folder free.
  cluster = await startCluster(folder);
  expect(await ask(cluster.address, 'select sum(value)::int as sum from kept')).toEqual([{ sum: 3 }]);
});

test.each([
  ['cut', (path: string) => writeFileSync(path, readFileSync(path, 'utf8').slice(0, 20))],
  ['empty', (path: string) => writeFileSync(path, '')],
  ['gone', (path: string) => rmSync(path)],
  [
    'of another database',
    (path: string) =>
      writeFileSync(path, readFileSync(path, 'utf8').replace(/"password":\s*"[^"]*"/, '"password":"wrong"')),
  ],
])('what was stored is there where the file with the password is %s', async (_, damage) => {
  cluster = await startCluster(folder);
  await cluster.stop();
  damage(join(folder, 'cluster.json'));
  cluster = await startCluster(folder);
  expect(await ask(cluster.address, 'select sum(value)::int as sum from kept')).toEqual([{ sum: 3 }]);
});
