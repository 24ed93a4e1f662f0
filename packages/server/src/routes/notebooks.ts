import {
  mostFilmBytes,
  mostPhotographBytes,
  newPinSchema,
  newUpdateSchema,
  pinIdSchema,
} from '@heuristor/contracts';
import { Router } from 'express';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type Films, tooLargeFilm } from '../films/films';
import { type Photographs, tooLargePhotograph } from '../photographs/photographs';
import { type Queue } from '../queue/queue';
import { findInvestigation } from '../services/investigations';
import {
  addFilm,
  addPhotograph,
  addPin,
  findFilm,
  findNotebook,
  findPhotograph,
  findPin,
  mayAddFilm,
  mayAddPhotograph,
  writeUpdate,
} from '../services/notebooks';
import { actorIn, seenIn } from './allowed';
import { bodyOf, indexOf, textOf } from './validated';

/** A longer update is fetched by those who want it. */
const mostSpoken = 16_384;

interface Parts {
  bus: Bus;
  queue: Queue;
  photographs: Photographs;
  films: Films;
}

export function notebookRoutes({ bus, queue, photographs, films }: Parts): Router {
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
  router.post('/:id/notebook/photographs/:photograph', async (request, response) => {
    const id = await seenIn(request, response);
    const actor = actorIn(response);
    const called = pinIdSchema.safeParse(textOf(request, 'photograph'));
    if (!called.success) throw new Failure('invalid-request', called.error.issues[0].message);
    await findInvestigation(id);
    await mayAddPhotograph(actor, id);
    if (Number(request.headers['content-length'] ?? 0) > mostPhotographBytes) throw tooLargePhotograph();
    const made = await photographs.take(request);
    await addPhotograph(actor, id, called.data, made);
    response.status(201).json({ id: called.data, width: made.width, height: made.height });
  });
  router.get('/:id/notebook/photographs/:photograph', async (request, response) => {
    const id = await seenIn(request, response);
    await findInvestigation(id);
    const content = await findPhotograph(actorIn(response), id, textOf(request, 'photograph'));
    // It never changes; whoever signs in after him on the same machine is asked again.
    response.setHeader('Cache-Control', 'private, no-cache');
    response.type('image/jpeg').send(content);
  });
  router.post('/:id/notebook/films/:film', async (request, response) => {
    const id = await seenIn(request, response);
    const actor = actorIn(response);
    const called = pinIdSchema.safeParse(textOf(request, 'film'));
    if (!called.success) throw new Failure('invalid-request', called.error.issues[0].message);
    await findInvestigation(id);
    await mayAddFilm(actor, id);
    if (Number(request.headers['content-length'] ?? 0) > mostFilmBytes) throw tooLargeFilm();
    const { content, width, height } = await films.take(request);
    await addFilm(actor, id, called.data, content);
    response.status(201).json({ id: called.data, width, height });
  });
  router.get('/:id/notebook/films/:film', async (request, response) => {
    const id = await seenIn(request, response);
    await findInvestigation(id);
    const content = await findFilm(actorIn(response), id, textOf(request, 'film'));
    response.setHeader('Cache-Control', 'private, no-cache');
    response.setHeader('Accept-Ranges', 'bytes');
    response.type('video/mp4');
    // Who looks at one moment of it asks for a part (RFC 9110, 14).
    const ranges = request.range(content.length);
    if (!Array.isArray(ranges) || ranges.length !== 1 || ranges.type !== 'bytes') {
      response.send(content);
      return;
    }
    const [{ start, end }] = ranges;
    response.status(206).setHeader('Content-Range', `bytes ${start}-${end}/${content.length}`);
    response.send(content.subarray(start, end + 1));
  });
  return router;
}
