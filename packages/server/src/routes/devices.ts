import { calibrationSchema, settingSchema, zeroRequestSchema } from '@heuristor/contracts';
import { Router } from 'express';
import { type Presence } from '../presence/presence';
import { type Stages } from '../presence/stages';
import { type Calibrations } from '../sensors/calibrations';
import { type Outputs } from '../sensors/outputs';
import { bodyOf, textOf } from './validated';

interface Parts {
  presence: Presence;
  stages: Stages;
  calibrations: Calibrations;
  outputs: Outputs;
}

export function deviceRoutes({ presence, stages, calibrations, outputs }: Parts): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    response.json(presence.list());
  });
  router.get('/:code/sensor', (request, response) => {
    response.json(stages.errorsOf(textOf(request, 'code')));
  });
  router.post('/:code/zero', async (request, response) => {
    const { channels } = bodyOf(zeroRequestSchema, request);
    await calibrations.zero(textOf(request, 'code'), channels);
    response.status(204).end();
  });
  router.get('/:code/channels/:channel/still', async (request, response) => {
    response.json(await calibrations.still(textOf(request, 'code'), textOf(request, 'channel')));
  });
  router.put('/:code/calibration', async (request, response) => {
    await calibrations.set(textOf(request, 'code'), bodyOf(calibrationSchema, request));
    response.status(204).end();
  });
  router.post('/:code/output', (request, response) => {
    const { key, value } = bodyOf(settingSchema, request);
    outputs.set(textOf(request, 'code'), key, value);
    response.status(204).end();
  });
  router.post('/:code/admission', async (request, response) => {
    await presence.admit(textOf(request, 'code'));
    response.status(204).end();
  });
  router.post('/:code/flash', (request, response) => {
    presence.flash(textOf(request, 'code'));
    response.status(204).end();
  });
  return router;
}
