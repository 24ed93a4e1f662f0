import { calibrationSchema, settingSchema, zeroRequestSchema } from '@heuristor/contracts';
import { Router } from 'express';
import { type DeviceRegistry } from '../link/registry';
import { bodyOf, textOf } from './validated';

export function deviceRoutes(registry: DeviceRegistry): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    response.json(registry.list());
  });
  router.get('/:code/sensor', (request, response) => {
    response.json(registry.sensorOf(textOf(request, 'code')));
  });
  router.post('/:code/zero', async (request, response) => {
    const { channels } = bodyOf(zeroRequestSchema, request);
    await registry.zero(textOf(request, 'code'), channels);
    response.status(204).end();
  });
  router.get('/:code/channels/:channel/still', async (request, response) => {
    response.json(await registry.still(textOf(request, 'code'), textOf(request, 'channel')));
  });
  router.put('/:code/calibration', async (request, response) => {
    await registry.calibrate(textOf(request, 'code'), bodyOf(calibrationSchema, request));
    response.status(204).end();
  });
  router.post('/:code/output', (request, response) => {
    const { key, value } = bodyOf(settingSchema, request);
    registry.setOutput(textOf(request, 'code'), key, value);
    response.status(204).end();
  });
  router.post('/:code/admission', async (request, response) => {
    await registry.admit(textOf(request, 'code'));
    response.status(204).end();
  });
  router.post('/:code/flash', (request, response) => {
    registry.flash(textOf(request, 'code'));
    response.status(204).end();
  });
  return router;
}
