import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { pino } from 'pino';
import supertest from 'supertest';
import { issueLinkToken } from '../auth/signIn';
import { type Heuristor, startHeuristor } from '../heuristor';
import { type Settings } from '../settings';

const agentOf = (port: number) => supertest(`http://127.0.0.1:${port}`);

/** Somebody who is signed in. */
export interface Signed {
  cookie: string;
  /** Requests with that cookie. */
  api(
    method: 'get' | 'post' | 'put' | 'patch' | 'delete',
    path: string,
    body?: string | object,
  ): supertest.Test;
}

/** The server, and the teacher who is signed in on it. */
export interface TestServer extends Signed {
  heuristor: Heuristor;
  port: number;
  /** The same with the cookie of somebody else, who signs in by a token. */
  signIn(token: string): Promise<Signed>;
  anonymous: ReturnType<typeof agentOf>;
  close(): Promise<void>;
}

/** Signs in on the server at a port of this machine, by a token. */
export async function signedOn(port: number, token: string): Promise<Signed> {
  const anonymous = agentOf(port);
  const answer = await anonymous.post('/api/sign-in').send({ token });
  const cookie = String(answer.headers['set-cookie']).split(';')[0];
  return {
    cookie,
    api(method, path, body) {
      const request = anonymous[method](`/api${path}`).set('Cookie', cookie);
      return body === undefined ? request : request.send(body);
    },
  };
}

/** The address of a new database of the test cluster, whose own address `npm test` hands over. */
export async function newDatabase(): Promise<string> {
  const server = process.env.HEURISTOR_TEST_DATABASE;
  if (server === undefined)
    throw new Error('HEURISTOR_TEST_DATABASE is not set; run the tests with “npm test”');
  const name = `test_${randomBytes(6).toString('hex')}`;
  const client = new pg.Client({ connectionString: server });
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  return server.replace(/\/[^/]*$/, `/${name}`);
}

/** The whole server on a new database. */
export async function startTestServer(
  // The devices of tests count as the program's own.
  isOwn: Parameters<typeof startHeuristor>[2] | null = () => true,
  database?: string,
  settings: Partial<Settings> = {},
): Promise<TestServer> {
  const heuristor = await startHeuristor(
    {
      database: database ?? (await newDatabase()),
      port: 0,
      host: '127.0.0.1',
      web: 'packages/web/dist',
      logLevel: 'silent',
      pace: 1,
      data: '.',
      proxies: [],
      secret: null,
      tls: null,
      ...settings,
    },
    pino({ level: 'silent' }),
    isOwn ?? undefined,
  );
  const anonymous = agentOf(heuristor.port);
  const signIn = (token: string) => signedOn(heuristor.port, token);
  return {
    heuristor,
    port: heuristor.port,
    ...(await signIn(await issueLinkToken())),
    signIn,
    anonymous,
    close: () => heuristor.close(),
  };
}
