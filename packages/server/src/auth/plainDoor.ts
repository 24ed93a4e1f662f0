import { type RequestHandler } from 'express';
import { createHash } from 'node:crypto';
import { Failure } from '../failure';
import { type Access } from './access';

const style =
  'body{font:17px/1.5 system-ui,sans-serif;max-width:36rem;margin:3rem auto;padding:0 1.2rem;color:#16272c;background:#f3f7f6}a{color:#0b6b62;font-weight:650}code{font-size:.8em;overflow-wrap:anywhere}';
const policy = `default-src 'none'; style-src 'sha256-${createHash('sha256').update(style).digest('base64')}'`;

const escaped = (text: string) => text.replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`);

const page = (address: string, fingerprint: string) => `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Heuristor</title><style>${style}</style></head>
<body>
<h1>Heuristor</h1>
<p><a href="${escaped(address)}">Go on over an encrypted connection</a></p>
<p>Your browser will warn once that it does not know who vouches for this server. That is so because the certificate was made on the
teacher’s own computer and nobody else has signed it. The connection is encrypted all the same. Choose to go on in what the warning
calls details or more.</p>
<p>Who wants to be sure compares the fingerprint that the browser shows of the certificate with this one, on the teacher’s screen
or here:</p>
<p><code>${escaped(fingerprint)}</code></p>
</body>
</html>
`;

/** What devices may bring over plain HTTP from elsewhere: they know no certificates. */
const forDevices = /^\/api\/senml$/;

/** Leads browsers of other machines to the door over TLS, and says what their warning means. */
export const plainDoorOf =
  (access: Access, tls: { port: () => number; fingerprint: string }): RequestHandler =>
  (request, response, next) => {
    if (access.isSecure(request) || access.isFromHere(request) || forDevices.test(request.path)) {
      next();
      return;
    }
    const name = (request.headers.host ?? '').replace(/:\d+$/, '');
    const address = `https://${name}:${tls.port()}${request.originalUrl}`;
    if (request.path.startsWith('/api'))
      throw new Failure(
        'wrong-origin',
        `Over the network Heuristor answers at https://${name}:${tls.port()}.`,
      );
    response.setHeader('Content-Security-Policy', policy);
    response.type('html').send(page(address, tls.fingerprint));
  };
