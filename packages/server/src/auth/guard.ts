import * as cookies from 'cookie';
import { type RequestHandler } from 'express';
import { type IncomingMessage } from 'node:http';
import { Failure } from '../failure';
import { type Access } from './access';
import { actorOfCookie } from './signIn';

/** Cookies know no ports: the name tells this server's from another one's on the same machine. */
export const cookieNameOf = (request: IncomingMessage): string =>
  `heuristor-${request.socket.localPort ?? 0}`;

export const cookieOf = (request: IncomingMessage): string | undefined =>
  cookies.parse(request.headers.cookie ?? '')[cookieNameOf(request)];

/** Lets nobody past without a cookie of ours, and notes whose it is. */
export const signedInOnly: RequestHandler = async (request, response, next) => {
  const actor = await actorOfCookie(cookieOf(request));
  if (actor === null)
    throw new Failure(
      'not-signed-in',
      'You are not signed in. Open the sign-in link that Heuristor printed when it started.',
    );
  response.locals.actor = actor;
  next();
};

/**
 * Whether a request comes from a page of this very server, or from no page at all. Browsers say where a request comes from
 * in Sec-Fetch-Site, and in Origin; a page on another port of this machine is another site.
 */
export function isFromOwnPage(request: IncomingMessage, access: Access): boolean {
  const { headers } = request;
  const site = headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false;
  const { origin } = headers;
  const host = access.hostOf(request);
  return origin === undefined || origin === `http://${host}` || origin === `https://${host}`;
}

/** Turns away whatever another page asks for, reading included. */
export const ownPagesOnly =
  (access: Access): RequestHandler =>
  (request, _response, next) => {
    if (!isFromOwnPage(request, access))
      throw new Failure('wrong-origin', 'Heuristor only answers its own pages. Open it at its own address.');
    next();
  };
