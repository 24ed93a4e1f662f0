import { askedCheckSchema } from '@heuristor/contracts';
import { Router } from 'express';
import { type Evaluations } from '../evaluation/evaluations';
import { checkAnswer, standingWith } from '../guides/answers';
import { findInvestigation } from '../services/investigations';
import { actorIn, seenIn } from './allowed';
import { bodyOf } from './validated';

/** Answers to a guide; the guide itself is one of the documents of an investigation. */
export function guideRoutes({ evaluations }: { evaluations: Evaluations }): Router {
  const router = Router();
  router.get('/:id/guide/standing', async (request, response) => {
    const id = await seenIn(request, response);
    await findInvestigation(id);
    response.json(await standingWith(actorIn(response), id));
  });
  router.post('/:id/guide/checks', async (request, response) => {
    const id = await seenIn(request, response);
    const asked = bodyOf(askedCheckSchema, request);
    await findInvestigation(id);
    response.json(await checkAnswer(actorIn(response), id, asked, { evaluations }));
  });
  return router;
}
