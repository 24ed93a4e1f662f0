import { ownTimeZone } from '../services/runs';
import {
  addSpotsSchema,
  investigationLists,
  investigationOrders,
  investigationPatchSchema,
  keptKindKeys,
  keptPutSchema,
  newInvestigationSchema,
  newParticipantSchema,
  prepareSchema,
  setupPatchSchema,
  sweepSchema,
  takeRunsSchema,
  takeSpotSchema,
} from '@heuristor/contracts';
import { Router } from 'express';
import { z } from 'zod';
import { type AwayRecorder } from '../away/awayRecorder';
import { type Bus } from '../bus';
import { type Importer } from '../imports/importer';
import { Failure } from '../failure';
import { type LiveServer } from '../live/liveServer';
import { type Recorder } from '../recorder/recorder';
import {
  changeInvestigation,
  copyInvestigation,
  createInvestigation,
  findInvestigation,
  listInvestigations,
  previewsOf,
  readInvestigation,
  removeInvestigation,
  restoreInvestigation,
  runsWithPlan,
} from '../services/investigations';
import { type SensorUses } from '../sensors/sensorUses';
import { findDocument, writeDocument } from '../services/documents';
import { addParticipant, listParticipants, removeParticipant } from '../services/participants';
import { mustReach } from '../services/access';
import { takeRuns } from '../services/takenRuns';
import { sensorsOf } from '../services/sensorUse';
import { endedByRestart, forgetWhatEnded } from '../services/underWay';
import { type SpotRecorder } from '../spots/spotRecorder';
import { actorIn, ownIn, seenIn, teacherIn } from './allowed';
import { bodyOf, idOf, indexOf, textOf } from './validated';

const listQuerySchema = z.object({
  of: z.enum(investigationLists).default('all'),
  by: z.enum(investigationOrders).default('use'),
});

interface Parts {
  bus: Bus;
  uses: SensorUses;
  recorder: Recorder;
  live: LiveServer;
  importer: Importer;
  spots: SpotRecorder;
  away: AwayRecorder;
}

export function investigationRoutes({ bus, uses, recorder, live, importer, spots, away }: Parts): Router {
  const router = Router();
  router.get('/', async (request, response) => {
    const search = typeof request.query.search === 'string' ? request.query.search : '';
    if (search.length > 200 || search.includes('\u0000'))
      throw new Failure('invalid-request', 'search takes a part of a name, 200 letters at most.');
    const asked = listQuerySchema.safeParse(request.query);
    if (!asked.success)
      throw new Failure(
        'invalid-request',
        `of takes ${investigationLists.join(', ')}; by takes ${investigationOrders.join(' or ')}.`,
      );
    const { of, by } = asked.data;
    response.json(
      await listInvestigations(actorIn(response), { search, of, by, from: indexOf(request, 'from') }),
    );
  });
  router.get('/:id/previews', async (request, response) => {
    response.json(await previewsOf(actorIn(response), await seenIn(request, response)));
  });
  router.post('/', async (request, response) => {
    const id = await createInvestigation(teacherIn(response), bodyOf(newInvestigationSchema, request).name);
    response.status(201).json({ id });
  });
  router.get('/:id', async (request, response) => {
    const id = await seenIn(request, response);
    response.json({
      ...(await readInvestigation(actorIn(response), id)),
      sensors: await sensorsOf(id),
      recorder: recorder.status(id),
      spots: spots.status(id),
      ended: await endedByRestart(id),
    });
  });
  router.delete('/:id/ended', async (request, response) => {
    await forgetWhatEnded(await ownIn(request, response));
    response.status(204).end();
  });
  router.patch('/:id', async (request, response) => {
    const id = await ownIn(request, response);
    const patch = bodyOf(investigationPatchSchema, request);
    const changed = await changeInvestigation(id, patch);
    bus.emit('plan', id, changed);
    if (patch.name !== undefined) uses.renamed(id, patch.name);
    response.status(204).end();
  });
  router.delete('/:id', async (request, response) => {
    const id = await ownIn(request, response);
    recorder.checkIdle(id);
    spots.checkIdle(id);
    away.checkIdle(id);
    await removeInvestigation(id);
    await uses.freeAll(id);
    response.status(204).end();
  });
  router.post('/:id/restore', async (request, response) => {
    await restoreInvestigation(await ownIn(request, response));
    response.status(204).end();
  });
  router.post('/:id/copy', async (request, response) => {
    response.status(201).json(await copyInvestigation(teacherIn(response), await ownIn(request, response)));
  });
  router.get('/:id/runs', async (request, response) => {
    response.json(await runsWithPlan(await seenIn(request, response)));
  });
  router.post('/:id/runs', async (request, response) => {
    const id = await ownIn(request, response);
    const { runs } = bodyOf(takeRunsSchema, request);
    for (const run of runs) await mustReach(actorIn(response), 'see', run);
    const taken = await takeRuns(id, runs);
    bus.emit('plan', id, taken);
    for (const run of taken.runs) bus.emit('run', run);
    response.status(201).json(taken.runs);
  });
  for (const kind of keptKindKeys) {
    const sent = keptPutSchema(kind);
    router.get(`/:id/${kind}`, async (request, response) => {
      const id = await seenIn(request, response);
      await findInvestigation(id);
      const { version, document } = await findDocument(actorIn(response), id, kind);
      response.json({ version, [kind]: document });
    });
    router.put(`/:id/${kind}`, async (request, response) => {
      const id = await seenIn(request, response);
      const actor = actorIn(response);
      const { version, document } = bodyOf(sent, request);
      await findInvestigation(id);
      const next = await writeDocument(actor, id, kind, version, document);
      bus.emit('document', id, { kind, owner: actor.id, version: next });
      response.json({ version: next });
    });
  }
  router.get('/:id/participants', async (request, response) => {
    response.json(await listParticipants(await ownIn(request, response)));
  });
  router.post('/:id/participants', async (request, response) => {
    const id = await ownIn(request, response);
    const wanted = bodyOf(newParticipantSchema, request);
    response.status(201).json(await addParticipant(teacherIn(response), id, wanted));
  });
  router.delete('/:id/participants/:person', async (request, response) => {
    const person = idOf(request, 'person');
    await removeParticipant(await ownIn(request, response), person);
    live.endForPerson(person);
    response.status(204).end();
  });
  router.put('/:id/sensors/:code', async (request, response) => {
    await uses.take(await findInvestigation(await ownIn(request, response)), textOf(request, 'code'));
    response.status(204).end();
  });
  router.patch('/:id/sensors/:code', async (request, response) => {
    await uses.setUp(
      await ownIn(request, response),
      textOf(request, 'code'),
      bodyOf(setupPatchSchema, request),
    );
    response.status(204).end();
  });
  router.delete('/:id/sensors/:code', async (request, response) => {
    await uses.free(await ownIn(request, response), textOf(request, 'code'));
    response.status(204).end();
  });
  router.post('/:id/recording', async (request, response) => {
    const run = await recorder.start(await ownIn(request, response));
    // A run that waits for what its plan says comes to the screens when it has begun.
    response.status(run === null ? 202 : 201).json(run);
  });
  router.post('/:id/recording/begin', async (request, response) => {
    recorder.begin(await ownIn(request, response));
    response.status(204).end();
  });
  router.delete('/:id/recording', async (request, response) => {
    response.json(await recorder.stop(await ownIn(request, response)));
  });
  router.post('/:id/spots', async (request, response) => {
    const { run, cells, anyway } = bodyOf(takeSpotSchema, request);
    response.status(201).json(await spots.take(await ownIn(request, response), run, cells, anyway));
  });
  router.post('/:id/spots/rows', async (request, response) => {
    const { run, rows } = bodyOf(addSpotsSchema, request);
    response.status(201).json(await spots.addRows(await ownIn(request, response), run, rows));
  });
  router.post('/:id/spots/sweep', async (request, response) => {
    await spots.sweep(await ownIn(request, response), bodyOf(sweepSchema, request));
    response.status(202).json(null);
  });
  router.delete('/:id/spots/sweep', async (request, response) => {
    spots.stop(await ownIn(request, response));
    response.status(204).end();
  });
  router.post('/:id/away', async (request, response) => {
    await away.prepare(await ownIn(request, response), bodyOf(prepareSchema, request));
    response.status(201).json(null);
  });
  router.post('/:id/imports', async (request, response) => {
    const name = typeof request.query.name === 'string' ? request.query.name.replaceAll('\u0000', '') : '';
    response
      .status(202)
      .json(
        await importer.receive(
          actorIn(response),
          await ownIn(request, response),
          name,
          zoneIn(request.query.zone),
          request,
        ),
      );
  });
  return router;
}

/** The zone of the clock of whoever brings a file in; that of this computer where it is none that is known. */
function zoneIn(asked: unknown): string {
  try {
    if (typeof asked === 'string' && asked !== '')
      return new Intl.DateTimeFormat('en', { timeZone: asked }).resolvedOptions().timeZone;
  } catch {
    // A zone that nobody knows is no zone.
  }
  return ownTimeZone();
}
