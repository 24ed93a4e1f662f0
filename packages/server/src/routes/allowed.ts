import { type Request, type RequestHandler, type Response } from 'express';
import { type Actor, type Teacher } from '../auth/actor';
import { mustOwn, mustReach, mustSee, mustTeach } from '../services/access';
import { idOf } from './validated';

/** Who asks; the guard has found out before any route is reached. */
export const actorIn = ({ locals }: Response): Actor => locals.actor as Actor;

/** @throws Failure unless a teacher asks */
export const teacherIn = (response: Response): Teacher => mustTeach(actorIn(response));

/** Only teachers get past. */
export const teachersOnly: RequestHandler = (_request, response, next) => {
  teacherIn(response);
  next();
};

/** The investigation in the path, where whoever asks may look at it. @throws Failure */
export async function seenIn(request: Request, response: Response): Promise<string> {
  const id = idOf(request);
  await mustSee(actorIn(response), id);
  return id;
}

/** The investigation in the path, where it is that of whoever asks. @throws Failure */
export async function ownIn(request: Request, response: Response): Promise<string> {
  const id = idOf(request);
  await mustOwn(actorIn(response), id);
  return id;
}

/** The run in the path, where whoever asks may look at it, or change it. @throws Failure */
export async function runIn(request: Request, response: Response, how: 'see' | 'own'): Promise<string> {
  const id = idOf(request);
  await mustReach(actorIn(response), how, id);
  return id;
}
