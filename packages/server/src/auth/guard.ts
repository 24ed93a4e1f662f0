import * as cookies from 'cookie';
import { type RequestHandler } from 'express';
import { type IncomingMessage } from 'node:http';
import { Failure } from '../failure';
import { teacherOfCookie } from './signIn';

export const cookieName = 'heuristor';

export const cookieOf = (request: IncomingMessage): string | undefined =>
  cookies.parse(request.headers.cookie ?? '')[cookieName];

/** Lets nobody past without a cookie of ours. */
export const signedInOnly: RequestHandler = async (request, _response, next) => {
  if ((await teacherOfCookie(cookieOf(request))) === null)
    throw new Failure(
      'not-signed-in',
      'You are not signed in. Open the sign-in link that Heuristor printed when it started.',
    );
  next();
};
