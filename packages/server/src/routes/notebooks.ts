import { newPinSchema, newUpdateSchema } from '@heuristor/contracts';
import { Router } from 'express';
import { type Bus } from '../bus';
import { type Queue } from '../queue/queue';
import { findInvestigation } from '../services/investigations';
import { addPin, findNotebook, findPin, writeUpdate } from '../services/notebooks';
import { actorIn, seenIn } from './allowed';
import { bodyOf, indexOf, textOf } from './validated';

/** A longer update is fetched by those who want it. */
const mostSpoken = 16_384;

export function notebookRoutes({ bus, queue }: { bus: Bus; queue: Queue }): Router {
  const router = Router();
  router.get('/:id/notebook', async (request, response) => {
    const id = await seenIn(request, response);
    await findInvestigation(id);
    response.json(await findNotebook(actorIn(response), id, indexOf(request, 'after')));
  });
  router.post('/:id/notebook/updates', async (request, response) => {
    const id = await seenIn(request, response);
    const actor = actorIn(response);
    const { update } = bodyOf(newUpdateSchema, request);
    await findInvestigation(id);
    const { at, notebook, isScattered } = await writeUpdate(actor, id, update);
    bus.emit('notebook', id, {
      owner: actor.id,
      at,
      update: update.length <= mostSpoken ? update : null,
    });
    // That a notebook is not joined is no reason to refuse what was written.
    if (isScattered) await queue.add('join-notebook', { notebook }).catch(() => undefined);
    response.status(201).json({ at });
  });
  router.post('/:id/notebook/pins', async (request, response) => {
    const id = await seenIn(request, response);
    const pin = bodyOf(newPinSchema, request);
    await findInvestigation(id);
    await addPin(actorIn(response), id, pin);
    response.status(201).json(null);
  });
  router.get('/:id/notebook/pins/:pin', async (request, response) => {
    const id = await seenIn(request, response);
    await findInvestigation(id);
    response.json(await findPin(actorIn(response), id, textOf(request, 'pin')));
  });
  return router;
}
