import { spawnSync } from 'node:child_process';
import { chmodSync, closeSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from '@heuristor/server';
import { io } from 'socket.io-client';
import { startCluster } from './cluster';
import { startServer, startStandIns } from './system';
import { signedInAt } from './testing/signedIn';

// A disk that is really full for a while, with a database and a server that write on it. Only root can make such a small disk.

const disk = mkdtempSync(join(tmpdir(), 'heuristor-disk-'));
const isMounted =
  process.getuid?.() === 0 &&
  spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=300m', 'tmpfs', disk]).status === 0;
afterAll(() => {
  if (isMounted) spawnSync('umount', ['-l', disk]);
  rmSync(disk, { recursive: true, force: true });
});

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
interface Seen {
  type: string;
  disk?: string;
}
interface StoredRun {
  gaps: unknown[];
  notes: string[];
  channels: { id: number; sampling: { interval: number } }[];
}

(isMounted ? test : test.skip)(
  'a disk that is full for a while is said within two seconds, and loses nothing of what is recorded meanwhile',
  async () => {
    chmodSync(disk, 0o777);
    const data = join(disk, 'data');
    const cluster = await startCluster(data);
    const database = await openDatabase(cluster.address);
    const server = await startServer(cluster.address, 0, data);
    const standIns = startStandIns(server.port, data);
    const { site, headers, api, sensor, values } = await signedInAt(server.port);
    const { id } = await api<{ id: string }>('POST', '/investigations', { name: 'Full' });
    await sensor('V2-L');
    await api('PUT', `/investigations/${id}/sensors/V2-L`);
    await api('PATCH', `/investigations/${id}`, { plan: { end: { kind: 'stopped' } } });
    const told: { at: number; state: string }[] = [];
    const socket = io(site, {
      path: '/live',
      transports: ['websocket'],
      extraHeaders: { Cookie: headers.Cookie },
    });
    socket.on('say', ({ type, disk: state }: Seen) => {
      if (type === 'storage' && state !== undefined) told.push({ at: Date.now(), state });
    });
    await pause(1500);
    // So little room is said before it is gone.
    expect(told.at(-1)?.state).toBe('low');
    // A file that would take the room that recording needs is refused, and leaves nothing.
    const refused = await fetch(`${site}/api/investigations/${id}/imports?name=large`, {
      method: 'POST',
      headers: { ...headers, 'Content-Type': 'application/octet-stream' },
      body: Buffer.alloc(60e6, '1\n'),
    });
    expect(refused.status).toBe(413);
    expect(await refused.text()).toMatch(/MB left on the disk, too little for this file/);
    expect((await database.general('stored_part').count('part as parts'))[0]).toEqual({ parts: 0 });
    await api('POST', `/investigations/${id}/recording`, {});
    const begun = Date.now();
    await pause(2000);
    const filler = join(disk, 'filler');
    const file = openSync(filler, 'w');
    const chunk = Buffer.alloc(1 << 20);
    // From the moment at which nothing more could be written.
    let filledAt = Infinity;
    const beganAt = Date.now();
    while (Date.now() - beganAt < 12_000) {
      for (const length of [chunk.length, 4096])
        try {
          for (;;) writeSync(file, chunk, 0, length);
        } catch {
          // Full, as it should be.
        }
      filledAt = Math.min(filledAt, Date.now());
      await pause(200);
    }
    const said = told.find(({ state, at }) => state === 'full' && at >= beganAt);
    expect((said?.at ?? Infinity) - filledAt).toBeLessThan(2000);
    closeSync(file);
    rmSync(filler);
    await pause(8000);
    expect(told.at(-1)?.state).toBe('low');
    await api('DELETE', `/investigations/${id}/recording`, {});
    const seconds = (Date.now() - begun) / 1000;
    await pause(1500);
    const [run] = (await api<{ runs: StoredRun[] }>('GET', `/investigations/${id}`)).runs;
    expect([run.gaps, run.notes]).toEqual([[], []]);
    for (const { id: channel, sampling } of run.channels) {
      const stored = await values(channel);
      expect(Math.abs(stored.length * sampling.interval - seconds)).toBeLessThan(1);
      expect(stored.some(Number.isNaN)).toBe(false);
    }
    socket.close();
    await standIns.stop();
    await server.stop();
    await database.close();
    await cluster.stop();
  },
  120_000,
);
