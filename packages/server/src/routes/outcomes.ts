import {
  type OutcomesOfRuns,
  type WorkingsDocument,
  idSchema,
  mostAcross,
  mostKeptAtOnce,
  mostOutcomesAtOnce,
} from '@heuristor/contracts';
import { type Request, Router } from 'express';
import { type Actor } from '../auth/actor';
import { type OwnedSheet } from '../evaluation/askedRuns';
import { type Evaluations } from '../evaluation/evaluations';
import { Failure } from '../failure';
import { type Recorder } from '../recorder/recorder';
import { mustOwn } from '../services/access';
import { documentOf, findDocument } from '../services/documents';
import { findInvestigation } from '../services/investigations';
import { findRuns, readRun } from '../services/runs';
import { actorIn, runIn, seenIn } from './allowed';

const mostAsked = 200;

/** A list in the query, its parts between commas; null where there is none. @throws Failure */
function listOf({ query }: Request, name: string): string[] | null {
  const { [name]: text } = query;
  if (text === undefined) return null;
  const parts = typeof text === 'string' ? text.split(',').filter((part) => part !== '') : [];
  if (parts.length === 0 || parts.length > mostAsked)
    throw new Failure('invalid-request', `${name} takes 1 to ${mostAsked} ids with commas between them.`);
  return parts;
}

/** The sheets that are asked for: one's own, or those of people, which only the owner of the investigation may. @throws Failure */
async function sheetsFor(
  actor: Actor,
  investigation: string,
  people: readonly string[] | null,
): Promise<OwnedSheet[]> {
  if (people === null) {
    const { document, owner } = await findDocument(actor, investigation, 'workings');
    return [{ owner, workings: document }];
  }
  if (people.some((person) => person !== actor.id)) await mustOwn(actor, investigation);
  return Promise.all(
    people.map(async (owner) => {
      const found = idSchema.safeParse(owner).success
        ? await documentOf(owner, investigation, 'workings')
        : null;
      if (found === null)
        throw new Failure('not-found', `“${owner.slice(0, 60)}” has no workings in this investigation.`);
      return { owner, workings: found };
    }),
  );
}

/** What one's own workings say of several runs of an investigation, each evaluated where nothing was kept of it, or only what was. */
export function manyOutcomesRoutes({ evaluations }: { evaluations: Evaluations }): Router {
  const router = Router();
  router.get('/:id/outcomes', async (request, response) => {
    const investigation = await seenIn(request, response);
    const onlyKept = request.query.kept !== undefined;
    const most = onlyKept ? mostKeptAtOnce : mostOutcomesAtOnce;
    const wanted = listOf(request, 'runs');
    if (wanted === null || wanted.length > most)
      throw new Failure('invalid-request', `runs takes 1 to ${most} ids with commas between them.`);
    const { plan } = await findInvestigation(investigation);
    const sheets = await sheetsFor(actorIn(response), investigation, null);
    const found = (await findRuns(wanted.filter((id) => idSchema.safeParse(id).success))).filter(
      (run) => run.investigationId === investigation,
    );
    const said = await (onlyKept
      ? evaluations.keptOf(found, plan, sheets)
      : evaluations.ofRuns(found, plan, sheets));
    const answers = wanted.map((id): OutcomesOfRuns[number] => {
      const place = found.findIndex((run) => run.id === id);
      if (place < 0) return { runId: id, failed: 'There is no such run in this investigation.' };
      const answer = said[place];
      if (answer === null) return { runId: id, notKept: true };
      return answer instanceof Failure ? { runId: id, failed: answer.message } : answer;
    });
    response.json(answers);
  });
  return router;
}

/** Which constant takes which values, and what follows is asked for. @throws Failure */
function acrossIn(request: Request, { entries: all }: WorkingsDocument) {
  const [constant = ''] = listOf(request, 'constant') ?? [];
  const values = (listOf(request, 'values') ?? []).map(Number);
  const entries = listOf(request, 'entries') ?? [];
  if (!all.some(({ id, kind }) => id === constant && kind === 'constant'))
    throw new Failure('not-found', `There is no constant “${constant.slice(0, 60)}” on the sheet.`);
  const { values: mostValues, entries: mostEntries } = mostAcross;
  if (values.length === 0 || values.length > mostValues || !values.every(Number.isFinite))
    throw new Failure('invalid-request', `values takes 1 to ${mostValues} numbers with commas between them.`);
  if (entries.length === 0 || entries.length > mostEntries)
    throw new Failure('invalid-request', `entries takes 1 to ${mostEntries} ids with commas between them.`);
  return { constant, values, entries };
}

/** What workings say of a run, whether a screen shows it or not. */
export function outcomeRoutes({
  evaluations,
  recorder,
}: {
  evaluations: Evaluations;
  recorder: Recorder;
}): Router {
  const router = Router();
  router.get('/:id/across', async (request, response) => {
    const run = await readRun(await runIn(request, response, 'see'));
    const { plan } = await findInvestigation(run.investigationId);
    const [{ workings }] = await sheetsFor(actorIn(response), run.investigationId, null);
    response.json(await evaluations.across(run, plan, workings, acrossIn(request, workings)));
  });
  router.get('/:id/outcomes', async (request, response) => {
    const run = await readRun(await runIn(request, response, 'see'));
    const entries = listOf(request, 'entries');
    const sheets = await sheetsFor(actorIn(response), run.investigationId, listOf(request, 'of'));
    const unknown = entries?.find(
      (id) => !sheets.some(({ workings }) => workings.entries.some((one) => one.id === id)),
    );
    if (unknown !== undefined)
      throw new Failure(
        'not-found',
        `There is no entry “${unknown.slice(0, 60)}” on the sheet. It may have been removed.`,
      );
    const { plan } = await findInvestigation(run.investigationId);
    if (run.state === 'recording') await recorder.writer.flush();
    response.json(await evaluations.of(run, plan, sheets, entries === null ? null : new Set(entries)));
  });
  return router;
}
