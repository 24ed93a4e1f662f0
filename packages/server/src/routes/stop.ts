import { Router } from 'express';
import { cookieOf } from '../auth/guard';
import { wasKnownLately } from '../auth/signIn';
import { type Recorder } from '../recorder/recorder';
import { idOf } from './validated';

/** Ends a run, or cancels one that waits, without asking the database anything: it may be away, and a run must always stop. */
export function stopRoute(recorder: Recorder): Router {
  const router = Router();
  router.delete('/:id/recording', async (request, response, next) => {
    if (!wasKnownLately(cookieOf(request))) {
      next();
      return;
    }
    response.json(await recorder.stop(idOf(request)));
  });
  return router;
}
