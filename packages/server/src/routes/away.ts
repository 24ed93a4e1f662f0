import { fetchAwaySchema } from '@heuristor/contracts';
import { type Request, Router } from 'express';
import { type AwayRecorder } from '../away/awayRecorder';
import { Failure } from '../failure';
import { bodyOf, textOf } from './validated';

/** What is done with runs that devices keep. */
export function awayRoutes({ away }: { away: AwayRecorder }): Router {
  const router = Router();
  const parts = (request: Request) => {
    const id = Number(textOf(request, 'id'));
    if (!Number.isInteger(id)) throw new Failure('not-found', 'There is no such run on this device.');
    return [textOf(request, 'code'), id] as const;
  };
  router.post('/:code/away/:id/fetch', async (request, response) => {
    await away.fetch(...parts(request), bodyOf(fetchAwaySchema, request).end);
    response.status(202).json(null);
  });
  router.delete('/:code/away/:id/fetch', async (request, response) => {
    await away.cancel(...parts(request));
    response.status(204).end();
  });
  router.delete('/:code/away/:id', async (request, response) => {
    await away.discard(...parts(request), true);
    response.status(204).end();
  });
  router.post('/:code/away/:id/restore', async (request, response) => {
    await away.discard(...parts(request), false);
    response.status(204).end();
  });
  return router;
}
