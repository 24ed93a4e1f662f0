import { issueLinkToken } from '@heuristor/server';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** What a signed-in screen asks of a server in a process of its own. */
export interface SignedIn {
  site: string;
  /** With which a request is signed in. */
  headers: Record<string, string>;
  /** @throws Error with what the server answered where that was no yes */
  api<T>(method: string, path: string, body?: unknown): Promise<T>;
  /** Waits until a sensor is there. */
  sensor(code: string): Promise<void>;
  /** The stored readings of a channel. */
  values(channel: number): Promise<Float64Array>;
}

/** Signs in at the server on a port; its database has to be open in this process too. */
export async function signedInAt(port: number): Promise<SignedIn> {
  const site = `http://127.0.0.1:${port}`;
  const headers: Record<string, string> = { 'Content-Type': 'application/json' };
  const api = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const answer = await fetch(`${site}/api${path}`, {
      method,
      headers,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${method} ${path}: ${text}`);
    return (text === '' ? null : JSON.parse(text)) as T;
  };
  const signedIn = await fetch(`${site}/api/sign-in`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ token: await issueLinkToken() }),
  });
  headers.Cookie = String(signedIn.headers.get('set-cookie')).split(';')[0];
  return {
    site,
    headers,
    api,
    async sensor(code) {
      for (let tries = 0; tries < 50; tries++) {
        const devices = await api<{ code: string; present: boolean }[]>('GET', '/devices');
        if (devices.some((device) => device.code === code && device.present)) return;
        await pause(200);
      }
    },
    async values(channel) {
      const answer = await fetch(`${site}/api/channels/${channel}/values`, { headers });
      return new Float64Array(await answer.arrayBuffer());
    },
  };
}
