import { mkdtempSync, rmSync } from 'node:fs';
import { get } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect, type PeerCertificate, type TLSSocket } from 'node:tls';
import { issueLinkToken } from './auth/signIn';
import { FakeDevice, helloOf } from './testing/fakeDevice';
import { type TestServer, startTestServer } from './testing/testServer';

// Where requests come in: straight, through a proxy, over TLS.

const folder = mkdtempSync(join(tmpdir(), 'heuristor-tls-'));
afterAll(() => rmSync(folder, { recursive: true }));

describe('behind a proxy that is named', () => {
  let server: TestServer;
  beforeAll(async () => {
    // As the server takes it: by the secret, which devices from elsewhere don't know.
    server = await startTestServer(null, undefined, {
      proxies: ['127.0.0.1'],
      secret: 'a secret of some length',
    });
  });
  afterAll(() => server.close());

  test('a device of the network waits until it is let in, and none takes the sign of this machine for its own', async () => {
    const device = await FakeDevice.connect(server.port, 'D1-A', () => 1, helloOf('D1-A'));
    expect(await device.heard(({ type }) => type === 'waiting' || type === 'welcome')).toEqual({
      type: 'waiting',
    });
    device.vanish();
  });

  test('the cookie of a sign-in over TLS is for TLS alone, and tries are counted for each that asks', async () => {
    const signIn = (token: string, from: string) =>
      server.anonymous
        .post('/api/sign-in')
        .set({ 'X-Forwarded-Proto': 'https', 'X-Forwarded-For': from })
        .send({ token });
    const answer = await signIn(await issueLinkToken(), '10.0.0.1');
    expect(String(answer.headers['set-cookie'])).toContain('Secure');
    for (let i = 0; i < 30; i++) await signIn('none', '10.0.0.2');
    expect((await signIn('none', '10.0.0.2')).status).toBe(429);
    expect((await signIn(await issueLinkToken(), '10.0.0.3')).status).toBe(204);
  });
});

test('over TLS it answers with a certificate of its own, which it keeps', async () => {
  const tls = { port: 0, from: { folder } };
  const certificateOf = (port: number) =>
    new Promise<PeerCertificate>((resolve, reject) => {
      const socket: TLSSocket = connect({ port, host: '127.0.0.1', rejectUnauthorized: false }, () => {
        resolve(socket.getPeerCertificate());
        socket.end();
      });
      socket.on('error', reject);
    });
  const first = await startTestServer(undefined, undefined, { tls });
  const shown = await certificateOf(first.heuristor.secure?.port ?? 0);
  expect(shown.fingerprint256).toBe(first.heuristor.secure?.fingerprint);
  expect(shown.subjectaltname).toContain('DNS:localhost');
  const status = await new Promise<number | undefined>((resolve) =>
    get(
      {
        port: first.heuristor.secure?.port,
        host: '127.0.0.1',
        path: '/api/me',
        // Node's own store knows nothing of it.
        rejectUnauthorized: false,
      },
      (answer) => resolve(answer.statusCode),
    ),
  );
  expect(status).toBe(401);
  await first.close();
  const second = await startTestServer(undefined, undefined, { tls });
  expect(second.heuristor.secure?.fingerprint).toBe(shown.fingerprint256);
  // From elsewhere, plain HTTP leads to the door over TLS and says what the warning means.
  const led = await second.anonymous
    .get('/sign-in/some-token')
    .set({ 'X-Forwarded-For': '10.0.0.9', Host: 'lab.local:4600' });
  expect(led.text).toContain(`https://lab.local:${second.heuristor.secure?.port}/sign-in/some-token`);
  expect(led.text).toContain(shown.fingerprint256);
  expect((await second.anonymous.get('/api/me').set({ 'X-Forwarded-For': '10.0.0.9' })).status).toBe(403);
  await second.close();
}, 60_000);
