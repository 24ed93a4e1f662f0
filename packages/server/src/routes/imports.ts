import { type ImportNames, importAnswerSchema, importKeepSchema } from '@heuristor/contracts';
import { type Request, Router } from 'express';
import { type Importer } from '../imports/importer';
import { actorIn } from './allowed';
import { bodyOf, idOf } from './validated';

/** Files of columns between their arrival and their becoming runs. */
export function importRoutes({ importer }: { importer: Importer }): Router {
  const router = Router();
  router.get('/:id', async (request, response) => {
    response.json(await importer.status(actorIn(response), idOf(request)));
  });
  router.post('/:id/answer', async (request, response) => {
    response.json(
      await importer.answer(actorIn(response), idOf(request), bodyOf(importAnswerSchema, request)),
    );
  });
  router.post('/:id/keep', async (request, response) => {
    response.status(201).json(await importer.keep(actorIn(response), idOf(request), namesIn(request)));
  });
  router.delete('/:id', async (request, response) => {
    await importer.cancel(actorIn(response), idOf(request));
    response.status(204).end();
  });
  return router;
}

/** Names that were mended in the preview; nothing where the request says nothing. */
const namesIn = (request: Request): ImportNames | undefined =>
  request.body === undefined ? undefined : bodyOf(importKeepSchema, request).runs;
