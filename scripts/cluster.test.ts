import {
  chmodSync,
  cpSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { type Cluster, startCluster } from './cluster';
import { openDataFolder } from './dataFolder';
import { portIsFree } from './ports';

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

test('another database takes the port after it was found free: it is left to it, with the password as it was', async () => {
  const other = mkdtempSync(join(tmpdir(), 'heuristor-cluster-'));
  const kept = join(other, 'cluster.json');
  try {
    cluster = await startCluster(other);
    await ask(cluster.address, 'create table own (name text)');
    await cluster.stop();
    cluster = await startCluster(folder);
    const port = Number(new URL(cluster.address).port);
    const before = JSON.parse(readFileSync(kept, 'utf8')) as { password: string };
    writeFileSync(kept, JSON.stringify({ ...before, port }));
    let asked = 0;
    const late = await startCluster(other, {
      isFree: (asks) => (asked++ === 0 ? Promise.resolve(true) : portIsFree(asks)),
    });
    try {
      expect(await ask(late.address, 'select * from own')).toEqual([]);
      expect(Number(new URL(late.address).port)).not.toBe(port);
      expect(JSON.parse(readFileSync(kept, 'utf8'))).toMatchObject({ password: before.password });
    } finally {
      await late.stop();
    }
  } finally {
    rmSync(other, { recursive: true, force: true });
  }
}, 60_000);

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

describe('a data folder that is moved, copied, or has lost its database', () => {
  const root = mkdtempSync(join(tmpdir(), 'heuristor-moved-'));
  afterAll(() => rmSync(root, { recursive: true, force: true }));
  /** A folder whose database lies outside, as root's does where the database's account cannot go. */
  const outside = async (): Promise<string> => {
    const data = mkdtempSync(join(root, 'data-'));
    chmodSync(data, 0o711);
    cluster = await startCluster(data);
    await ask(cluster.address, 'create table kept (value int); insert into kept values (7)');
    await cluster.stop();
    const place = mkdtempSync(join(root, 'database-'));
    chmodSync(place, 0o711);
    renameSync(join(data, 'postgres'), join(place, 'postgres'));
    const file = join(data, 'cluster.json');
    writeFileSync(
      file,
      JSON.stringify({
        ...(JSON.parse(readFileSync(file, 'utf8')) as object),
        folder: join(place, 'postgres'),
      }),
    );
    return data;
  };
  beforeAll(() => chmodSync(root, 0o711));
  const sum = async (data: string) => {
    cluster = await startCluster(data);
    return ask(cluster.address, 'select sum(value)::int as sum from kept');
  };

  test('moved, it finds its database, inside and outside', async () => {
    const data = await outside();
    expect(await sum(data)).toEqual([{ sum: 7 }]);
    await cluster?.stop();
    renameSync(data, `${data}-renamed`);
    expect(await sum(`${data}-renamed`)).toEqual([{ sum: 7 }]);
    await cluster?.stop();
    renameSync(folder, `${folder}-renamed`);
    try {
      expect(await sum(`${folder}-renamed`)).toEqual([{ sum: 3 }]);
      await cluster?.stop();
    } finally {
      renameSync(`${folder}-renamed`, folder);
    }
  }, 60_000);

  test('copied without its database, it says that it is no whole copy, and the other one goes on', async () => {
    const data = await outside();
    expect(await sum(data)).toEqual([{ sum: 7 }]);
    await cluster?.stop();
    cpSync(data, `${data}-copy`, { recursive: true });
    await expect(startCluster(`${data}-copy`)).rejects.toThrow(
      `${data}-copy is a copy of ${data} without its database`,
    );
    expect(await sum(data)).toEqual([{ sum: 7 }]);
  }, 60_000);

  test('without its database, it says so and begins no empty one', async () => {
    const data = await outside();
    const { folder: place } = JSON.parse(readFileSync(join(data, 'cluster.json'), 'utf8')) as {
      folder: string;
    };
    renameSync(place, `${place}-away`);
    await expect(startCluster(data)).rejects.toThrow(`${place} is missing. Put it back there`);
    expect(existsSync(place)).toBe(false);
    renameSync(`${place}-away`, place);
    expect(await sum(data)).toEqual([{ sum: 7 }]);
  }, 60_000);
});

test('a data folder that cannot be used says why', () => {
  const root = mkdtempSync(join(tmpdir(), 'heuristor-folder-'));
  const file = join(root, 'a file');
  writeFileSync(file, 'x');
  expect(() => openDataFolder(file)).toThrow('is a file, where the data folder should be');
  expect(() => openDataFolder(join(file, 'in', 'it'))).toThrow('a part of its path is a file');
  openDataFolder(join(root, 'new', 'one'));
  rmSync(root, { recursive: true });
});
