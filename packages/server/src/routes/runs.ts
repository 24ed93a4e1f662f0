import { retakeSpotSchema, runPatchSchema, spotColumnsSchema, spotPatchSchema } from '@heuristor/contracts';
import { type Request, Router } from 'express';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type Recorder } from '../recorder/recorder';
import { mustSeeChannel } from '../services/access';
import { changeRun, readRun } from '../services/runs';
import { findChannel, readSamples } from '../services/samples';
import { changeColumns, changeRow } from '../services/spots';
import { leftOutOf } from '../services/screened';
import { type SpotRecorder } from '../spots/spotRecorder';
import { actorIn, runIn } from './allowed';
import { bodyOf, indexOf, textOf } from './validated';

export function runRoutes({ bus, spots }: { bus: Bus; spots: SpotRecorder }): Router {
  const router = Router();
  const rowOf = (request: Request) => {
    const row = Number(textOf(request, 'row'));
    if (!Number.isInteger(row) || row < 1 || row > 2 ** 31 - 1)
      throw new Failure('not-found', 'There is no such reading in this series.');
    return row;
  };
  router.patch('/:id/spots/:row', async (request, response) => {
    const run = await changeRow(
      await runIn(request, response, 'own'),
      rowOf(request),
      bodyOf(spotPatchSchema, request),
    );
    bus.emit('run', run);
    response.json(run);
  });
  router.post('/:id/spots/:row/retake', async (request, response) => {
    const { anyway } = bodyOf(retakeSpotSchema, request);
    response.json(await spots.retake(await runIn(request, response, 'own'), rowOf(request), anyway));
  });
  router.put('/:id/columns', async (request, response) => {
    const run = await changeColumns(
      await runIn(request, response, 'own'),
      bodyOf(spotColumnsSchema, request).columns,
    );
    bus.emit('run', run);
    response.json(run);
  });
  router.get('/:id', async (request, response) => {
    response.json(await readRun(await runIn(request, response, 'see')));
  });
  router.get('/:id/left-out', async (request, response) => {
    const { id } = await readRun(await runIn(request, response, 'see'));
    response.json(await leftOutOf(id));
  });
  router.patch('/:id', async (request, response) => {
    const run = await changeRun(await runIn(request, response, 'own'), bodyOf(runPatchSchema, request));
    bus.emit('run', run);
    response.json(run);
  });
  return router;
}

/**
 * Readings of channels as float64, little endian, from an index on where one is asked for. A run in progress is stored up to
 * this moment first.
 */
export function channelRoutes({ recorder }: { recorder: Recorder }): Router {
  const router = Router();
  for (const what of ['values', 'times'] as const)
    router.get(`/:id/${what}`, async (request, response) => {
      const id = Number(textOf(request, 'id'));
      if (!Number.isInteger(id) || id < 1 || id > 2 ** 31 - 1)
        throw new Failure('not-found', 'There is no such channel.');
      await mustSeeChannel(actorIn(response), id);
      const channel = await findChannel(id);
      await recorder.writer.flush();
      const samples = readSamples(channel, what, indexOf(request, 'from'));
      // The first piece is asked for before anything is answered, so that a refusal can still be one.
      const first = await samples.next();
      response.type('application/octet-stream');
      if (first.done === true) {
        response.send(Buffer.alloc(0));
        return;
      }
      const pieces = async function* () {
        yield first.value;
        yield* samples;
      };
      await pipeline(Readable.from(pieces(), { objectMode: false }), response);
    });
  return router;
}
