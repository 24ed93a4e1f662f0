import { runPatchSchema } from '@heuristor/contracts';
import { type Response, Router } from 'express';
import { Failure } from '../failure';
import { type LiveServer } from '../live/liveServer';
import { type Recorder } from '../recorder/recorder';
import { changeRun, readRun, removeRun } from '../services/runs';
import { readSamples } from '../services/samples';
import { type Run } from '@heuristor/contracts';
import { bodyOf, idOf, textOf } from './validated';

export function runRoutes(live: LiveServer): Router {
  const router = Router();
  const tell = (run: Run, response: Response) => {
    live.broadcast({ type: 'run', run }, run.investigationId);
    response.json(run);
  };
  router.get('/:id', async (request, response) => {
    response.json(await readRun(idOf(request)));
  });
  router.patch('/:id', async (request, response) => {
    const id = idOf(request);
    await readRun(id);
    tell(await changeRun(id, bodyOf(runPatchSchema, request)), response);
  });
  router.delete('/:id', async (request, response) => {
    tell(await removeRun(idOf(request), true), response);
  });
  router.post('/:id/restore', async (request, response) => {
    tell(await removeRun(idOf(request), false), response);
  });
  return router;
}

/** Readings of channels as float64, little endian. A run in progress is stored up to this moment first. */
export function channelRoutes(recorder: Recorder): Router {
  const router = Router();
  for (const what of ['values', 'times'] as const)
    router.get(`/:id/${what}`, async (request, response) => {
      const id = Number(textOf(request, 'id'));
      if (!Number.isInteger(id) || id < 1 || id > 2 ** 31 - 1)
        throw new Failure('not-found', 'There is no such channel.');
      await recorder.writer.flush();
      const samples = await readSamples(id, what);
      response.type('application/octet-stream').send(samples);
    });
  return router;
}
