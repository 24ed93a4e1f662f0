import { newTemplateSchema } from '@heuristor/contracts';
import { Router } from 'express';
import { keepTemplate, listTemplates, removeTemplate } from '../services/templates';
import { teacherIn } from './allowed';
import { bodyOf, idOf } from './validated';

/** Sheets that are kept to be used over other runs. */
export function templateRoutes(): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await listTemplates(teacherIn(response)));
  });
  router.post('/', async (request, response) => {
    response
      .status(201)
      .json({ id: await keepTemplate(teacherIn(response), bodyOf(newTemplateSchema, request)) });
  });
  router.delete('/:id', async (request, response) => {
    await removeTemplate(teacherIn(response), idOf(request), true);
    response.status(204).end();
  });
  router.post('/:id/restore', async (request, response) => {
    await removeTemplate(teacherIn(response), idOf(request), false);
    response.status(204).end();
  });
  return router;
}
