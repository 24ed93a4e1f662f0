import { devicePatchSchema } from '@heuristor/contracts';
import { Router } from 'express';
import { type DeviceRegistry } from '../link/registry';
import { bodyOf, textOf } from './validated';

export function deviceRoutes(registry: DeviceRegistry): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    response.json(registry.list());
  });
  router.patch('/:code', async (request, response) => {
    await registry.change(textOf(request, 'code'), bodyOf(devicePatchSchema, request));
    response.status(204).end();
  });
  router.post('/:code/zero', async (request, response) => {
    await registry.zero(textOf(request, 'code'));
    response.status(204).end();
  });
  router.delete('/:code/zero', async (request, response) => {
    await registry.clearZero(textOf(request, 'code'));
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
