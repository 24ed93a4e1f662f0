import { investigationPatchSchema, newInvestigationSchema, workingsPutSchema } from '@heuristor/contracts';
import { Router, text } from 'express';
import { Failure } from '../failure';
import { type LiveServer } from '../live/liveServer';
import { type Recorder } from '../recorder/recorder';
import { importColumns } from '../services/imports';
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

const largestFile = '64mb';

export function investigationRoutes(recorder: Recorder, live: LiveServer): Router {
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
  router.post('/:id/imports', text({ type: 'text/csv', limit: largestFile }), async (request, response) => {
    if (typeof request.body !== 'string') throw new Failure('invalid-request', 'Send the file as text/csv.');
    const name = typeof request.query.name === 'string' ? request.query.name : '';
    const run = await importColumns(idOf(request), request.body, name);
    live.broadcast({ type: 'run', run }, run.investigationId);
    response.status(201).json(run);
  });
  return router;
}
