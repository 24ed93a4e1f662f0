import { existsSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join, resolve } from 'node:path';
import { issueLinkToken, openDatabase } from '@heuristor/server';
import { buildAll } from './build';
import { startCluster } from './cluster';
import { openDataFolder } from './dataFolder';
import { loadDemoData } from './demoData';
import { PlainFault, runScript, say } from './plain';
import { freePort, portIsFree } from './ports';
import { takeFolder } from './running';
import { type Supervised, type Running, supervise } from './supervise';
import { startBridge, startServer, startStandIns } from './system';

const usualPort = 4600;

async function wantedPort(): Promise<number> {
  const asked = process.env.HEURISTOR_PORT;
  const port = Number(asked ?? usualPort);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new PlainFault(`HEURISTOR_PORT must be a number from 1 to 65535, not “${asked}”.`);
  if (await portIsFree(port)) return port;
  if (asked !== undefined)
    throw new PlainFault(`Port ${asked} is taken by another program. Set HEURISTOR_PORT to a free one.`);
  const free = await freePort(port + 1);
  say(`Port ${port} is taken by another program; Heuristor uses ${free} instead.`);
  return free;
}

/** Where other machines of the network reach it, where they do. */
function addressesElsewhere(port: number, secure: { port: number; fingerprint: string } | null): string {
  const host = process.env.HEURISTOR_HOST ?? '127.0.0.1';
  if (host === '127.0.0.1' || host === 'localhost') return '';
  const addresses = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);
  const shown = host === '0.0.0.0' || host === '::' ? addresses : [host];
  if (shown.length === 0) return '';
  const lines = shown.map(
    (address) => `  ${secure === null ? `http://${address}:${port}` : `https://${address}:${secure.port}`}`,
  );
  return `\nFrom other machines of the network (each with a link of its own, by “npm run sign-in-link”):\n\n${lines.join('\n')}\n${
    secure === null
      ? '\nNothing of this is encrypted; with HEURISTOR_TLS=1 it is.\n'
      : `\nTheir browsers warn once of the certificate, whose fingerprint is\n  ${secure.fingerprint}\n`
  }`;
}

/** Starts part after part, and ends them in reverse order: on Ctrl-C, on a signal, when whoever started this is gone, on a fault. */
runScript(async (told) => {
  const data = resolve(process.env.HEURISTOR_DATA ?? '.data');
  openDataFolder(data);
  const folder = takeFolder(data);
  const parts: Supervised<Running>[] = [];
  let supervisedServer: Supervised<Running> | null = null as Supervised<Running> | null;
  let ending: Promise<void> | null = null;

  const end = (status: number) => {
    ending ??= (async () => {
      for (const part of parts.reverse()) await part.stop();
      folder.release();
      process.exit(status);
    })();
    return ending;
  };
  told.addEventListener('abort', () => {
    if (ending === null) say('\nEnding …');
    void end(0);
  });
  /** Whether the folder is still what it was; the database itself notices its removal only after a while. */
  const stillThere = () => {
    if (existsSync(join(data, 'cluster.json'))) return true;
    if (ending === null)
      say(
        `The data folder ${data} was removed or emptied while Heuristor ran. Everything is ended; put it back and start again.`,
      );
    void end(1);
    return false;
  };

  try {
    await buildAll();
    const cluster = await startCluster(data, { signal: told });
    let { address } = cluster;
    const database = supervise('The database', cluster, async () => {
      if (!stillThere()) throw new PlainFault('its folder is gone');
      const revived = await startCluster(data, { signal: told });
      // On another port than before, the server has to be told, which it is when it starts.
      if (revived.address !== address) void supervisedServer?.now().stop();
      ({ address } = revived);
      return revived;
    });
    parts.push(database);
    setInterval(stillThere, 2000).unref();
    const opened = await openDatabase(cluster.address);
    await loadDemoData();
    const token = await issueLinkToken();
    await opened.close();
    if (ending !== null) return;
    const port = await wantedPort();
    const server = await startServer(cluster.address, port, data);
    supervisedServer = supervise('The server', server, () => startServer(address, server.port, data));
    parts.push(supervisedServer);
    parts.push(
      supervise('The simulated sensors', startStandIns(server.port, data), () =>
        Promise.resolve(startStandIns(server.port, data)),
      ),
    );
    parts.push(
      supervise('The bridge to serial ports', startBridge(server.port, data), () =>
        Promise.resolve(startBridge(server.port, data)),
      ),
    );
    const site = `http://127.0.0.1:${server.port}`;
    folder.at(site);
    const elsewhere = addressesElsewhere(server.port, server.secure);
    say(
      `\nHeuristor is ready. Open this link once to sign in:\n\n  ${site}/sign-in/${token}\n${elsewhere}\nCtrl-C ends it. Everything is kept.`,
    );
  } catch (error) {
    if (ending !== null) {
      await ending;
      return;
    }
    for (const part of parts.reverse()) await part.stop();
    folder.release();
    throw error;
  }
});
