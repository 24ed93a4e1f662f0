import { Router } from 'express';
import { cookieOf } from '../auth/guard';
import { actorLately } from '../auth/signIn';
import { type Recorder } from '../recorder/recorder';
import { ownedLately } from '../services/access';
import { idOf } from './validated';

/** Ends a run, or cancels one that waits, without asking the database anything: it may be away, and a run must always stop. */
export function stopRoute({ recorder }: { recorder: Recorder }): Router {
  const router = Router();
  router.delete('/:id/recording', async (request, response, next) => {
    const actor = actorLately(cookieOf(request));
    const id = idOf(request);
    if (actor === null || !ownedLately(actor, id)) {
      next();
      return;
    }
    response.json(await recorder.stop(id));
  });
  return router;
}
