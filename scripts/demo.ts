import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { issueLinkToken, openDatabase } from '@heuristor/server';
import { buildWeb } from './build';
import { type Cluster, startCluster } from './cluster';
import { loadDemoData } from './demoData';
import { PlainFault, runScript, say } from './plain';
import { freePort, portIsFree } from './ports';
import { type Service, startServer, startStandIns } from './system';

const usualPort = 4600;

/** Refuses a second start beside a running one. */
function takeLock(data: string): () => void {
  const file = join(data, 'running.json');
  if (existsSync(file)) {
    const { pid, address } = JSON.parse(readFileSync(file, 'utf8')) as { pid: number; address: string };
    if (isOurs(pid))
      throw new PlainFault(
        `Heuristor is running already at ${address} (process ${pid}). Use that one, or end it with Ctrl-C in its window.`,
      );
  }
  writeFileSync(
    file,
    JSON.stringify({ pid: process.pid, address: 'an address that it is still looking for' }),
  );
  return () => rmSync(file, { force: true });
}

function isOurs(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('demo.ts');
  } catch {
    return false;
  }
}

async function wantedPort(): Promise<number> {
  const asked = process.env.HEURISTOR_PORT;
  const port = Number(asked ?? usualPort);
  if (await portIsFree(port)) return port;
  if (asked !== undefined)
    throw new PlainFault(`Port ${asked} is taken by another program. Set HEURISTOR_PORT to a free one.`);
  const free = await freePort(port + 1);
  say(`Port ${port} is taken by another program; Heuristor uses ${free} instead.`);
  return free;
}

runScript(async () => {
  const data = resolve(process.env.HEURISTOR_DATA ?? '.data');
  mkdirSync(data, { recursive: true });
  const releaseLock = takeLock(data);
  let cluster: Cluster | null = null;
  let services: Service[] = [];
  let ending = false;

  const end = async (status: number) => {
    if (ending) return;
    ending = true;
    await Promise.all(services.map((service) => service.stop()));
    await cluster?.stop();
    releaseLock();
    process.exit(status);
  };
  process.on('SIGINT', () => {
    say('\nEnding …');
    void end(0);
  });
  for (const signal of ['SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void end(0));

  try {
    buildWeb();
    cluster = await startCluster(data);
    const { address } = cluster;
    const database = await openDatabase(address);
    await loadDemoData();
    const token = await issueLinkToken();
    await database.close();
    const port = await wantedPort();
    const server = await startServer(address, port, data);
    const standIns = startStandIns(server.port, data);
    services = [standIns, server];
    const site = `http://127.0.0.1:${server.port}`;
    writeFileSync(join(data, 'running.json'), JSON.stringify({ pid: process.pid, address: site }));

    keepDatabaseAlive(
      cluster,
      data,
      () => ending,
      (revived) => (cluster = revived),
      end,
    );
    server.child.once('exit', () => {
      if (ending) return;
      say(
        `The server has ended. Its log is ${join(data, 'server.log')}. Start again with “npm run demo”; nothing recorded is lost.`,
      );
      void end(1);
    });
    standIns.child.once('exit', () => {
      if (!ending)
        say(
          'The simulated sensors have ended. Recorded runs are not touched; start again to have them back.',
        );
    });
    say(
      `\nHeuristor is ready. Open this link once to sign in:\n\n  ${site}/sign-in/${token}\n\nCtrl-C ends it. Everything is kept.`,
    );
  } catch (error) {
    await Promise.all(services.map((service) => service.stop()));
    await cluster?.stop();
    releaseLock();
    throw error;
  }
});

/** A database that is killed is started again on the same port; the server holds what it could not store until then. */
function keepDatabaseAlive(
  cluster: Cluster,
  data: string,
  isEnding: () => boolean,
  revivedAs: (cluster: Cluster) => void,
  end: (status: number) => Promise<void>,
): void {
  cluster.child.once('exit', () => {
    if (isEnding()) return;
    say('The database ended unexpectedly; it is started again. Readings wait in memory meanwhile.');
    startCluster(data).then(
      (revived) => {
        revivedAs(revived);
        say('The database runs again.');
        keepDatabaseAlive(revived, data, isEnding, revivedAs, end);
      },
      (error: unknown) => {
        say(error instanceof Error ? error.message : String(error));
        void end(1);
      },
    );
  });
}
