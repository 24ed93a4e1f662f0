import { investigationPatchSchema, newInvestigationSchema, workingsPutSchema } from '@heuristor/contracts';
import { Router } from 'express';
import { type Importer } from '../imports/importer';
import { type LiveServer } from '../live/liveServer';
import { type Recorder } from '../recorder/recorder';
import {
  changeInvestigation,
  copyInvestigation,
  createInvestigation,
  listInvestigations,
  readInvestigation,
  removeInvestigation,
  restoreInvestigation,
  writeWorkings,
} from '../services/investigations';
import { bodyOf, idOf } from './validated';

export function investigationRoutes(recorder: Recorder, live: LiveServer, importer: Importer): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await listInvestigations());
  });
  router.post('/', async (request, response) => {
    const id = await createInvestigation(bodyOf(newInvestigationSchema, request).name);
    response.status(201).json({ id });
  });
  router.get('/:id', async (request, response) => {
    response.json(await readInvestigation(idOf(request)));
  });
  router.patch('/:id', async (request, response) => {
    await changeInvestigation(idOf(request), bodyOf(investigationPatchSchema, request));
    response.status(204).end();
  });
  router.delete('/:id', async (request, response) => {
    await removeInvestigation(idOf(request));
    response.status(204).end();
  });
  router.post('/:id/restore', async (request, response) => {
    await restoreInvestigation(idOf(request));
    response.status(204).end();
  });
  router.post('/:id/copy', async (request, response) => {
    response.status(201).json({ id: await copyInvestigation(idOf(request)) });
  });
  router.put('/:id/workings', async (request, response) => {
    const id = idOf(request);
    const { version, workings } = bodyOf(workingsPutSchema, request);
    const next = await writeWorkings(id, version, workings);
    live.broadcast({ type: 'workings', investigation: id, version: next }, id);
    response.json({ version: next });
  });
  router.post('/:id/recording', async (request, response) => {
    response.status(201).json(await recorder.start(idOf(request)));
  });
  router.delete('/:id/recording', async (request, response) => {
    response.json(await recorder.stop(idOf(request)));
  });
  router.post('/:id/imports', async (request, response) => {
    const name = typeof request.query.name === 'string' ? request.query.name.replaceAll('\u0000', '') : '';
    response.status(202).json(await importer.receive(idOf(request), name, request));
  });
  return router;
}
