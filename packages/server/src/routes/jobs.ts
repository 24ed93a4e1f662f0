import { workOutSchema } from '@heuristor/contracts';
import { type Request, Router } from 'express';
import { Failure } from '../failure';
import { type Queue } from '../queue/queue';
import { findDocument } from '../services/documents';
import { endedRunsOf } from '../services/runs';
import { actorIn, seenIn } from './allowed';
import { bodyOf, textOf } from './validated';

/** What becomes of what somebody asked for that may wait. */
export function jobRoutes({ queue }: { queue: Queue }): Router {
  const router = Router();
  const idIn = (request: Request) => {
    const id = Number(textOf(request, 'id'));
    if (!Number.isSafeInteger(id) || id < 1)
      throw new Failure('not-found', 'A job is asked for by its number.');
    return id;
  };
  router.get('/:id', async (request, response) => {
    response.json(await queue.status(actorIn(response).id, idIn(request)));
  });
  router.delete('/:id', async (request, response) => {
    response.json(await queue.cancel(actorIn(response).id, idIn(request)));
  });
  return router;
}

/** What one's own workings say of many runs is worked out when there is time, and is there when it is asked for. */
export function workOutRoutes({ queue }: { queue: Queue }): Router {
  const router = Router();
  router.post('/:id/outcomes', async (request, response) => {
    const investigation = await seenIn(request, response);
    const { runs: wanted } = bodyOf(workOutSchema, request);
    const { owner } = await findDocument(actorIn(response), investigation, 'workings');
    const ended = await endedRunsOf(investigation);
    const strange = wanted?.find((id) => !ended.includes(id));
    if (strange !== undefined)
      throw new Failure(
        'not-found',
        `${strange} is no run of this investigation that has ended. Leave it out.`,
      );
    const runs = wanted ?? ended;
    response
      .status(202)
      .json(
        await queue.add(
          'work-out',
          { investigation, owner, runs },
          { person: actorIn(response).id, investigation },
        ),
      );
  });
  return router;
}
