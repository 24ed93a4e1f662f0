import { type Me, signInSchema } from '@heuristor/contracts';
import * as cookies from 'cookie';
import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { type Access } from '../auth/access';
import { cookieNameOf, cookieOf } from '../auth/guard';
import { actorOfCookie, forgetCookie, redeemToken } from '../auth/signIn';
import { Failure } from '../failure';
import { type LiveServer } from '../live/liveServer';
import { bodyOf } from './validated';

const cookieOptions = { httpOnly: true, sameSite: 'strict', path: '/' } as const;

/** The only routes that answer without a cookie. */
export function signInRoutes({ access, live }: { access: Access; live: LiveServer }): Router {
  const router = Router();
  const limited = rateLimit({
    windowMs: 60_000,
    limit: 30,
    standardHeaders: true,
    legacyHeaders: false,
    handler: () => {
      throw new Failure('too-many-requests', 'Too many tries to sign in. Wait a minute.');
    },
  });
  router.post('/sign-in', limited, async (request, response) => {
    const { token } = bodyOf(signInSchema, request);
    const { cookie, maxAgeSeconds } = await redeemToken(token);
    response.setHeader(
      'Set-Cookie',
      cookies.serialize(cookieNameOf(request), cookie, {
        ...cookieOptions,
        secure: access.isSecure(request),
        maxAge: maxAgeSeconds,
      }),
    );
    response.status(204).end();
  });
  router.post('/sign-out', async (request, response) => {
    const cookie = cookieOf(request);
    if (cookie !== undefined) {
      await forgetCookie(cookie);
      live.endFor(cookie);
    }
    response.setHeader(
      'Set-Cookie',
      cookies.serialize(cookieNameOf(request), '', { ...cookieOptions, maxAge: 0 }),
    );
    response.status(204).end();
  });
  router.get('/me', async (request, response) => {
    const actor = await actorOfCookie(cookieOf(request));
    if (actor === null) throw new Failure('not-signed-in', 'You are not signed in.');
    const { id, name, kind } = actor;
    response.json({ id, name, kind } satisfies Me);
  });
  return router;
}
