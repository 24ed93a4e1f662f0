import { type QueryBuilder } from 'objection';
import { type Actor, type Teacher } from '../auth/actor';
import { Failure } from '../failure';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';

/** Nobody learns by asking whether there is something that is not theirs. */
const missing = {
  investigation: 'There is no such investigation. It may have been removed.',
  run: 'There is no such run.',
  channel: 'There is no such channel.',
} as const;

/** Investigations that somebody has for his own, removed ones among them. */
const owned = (actor: Actor) => InvestigationModel.query().where({ ownerId: actor.id });

/** Investigations that somebody may look at. */
export const investigationsSeenBy = (actor: Actor): QueryBuilder<InvestigationModel> =>
  actor.kind === 'teacher' ? owned(actor) : InvestigationModel.query().where({ id: actor.investigation });

/** @throws Failure unless this is a teacher */
export function mustTeach(actor: Actor): Teacher {
  if (actor.kind !== 'teacher')
    throw new Failure('not-allowed', 'Only a teacher can do this. You take part in one investigation.');
  return actor;
}

/** @throws Failure where somebody may not look at an investigation */
export async function mustSee(actor: Actor, id: string): Promise<void> {
  if ((await investigationsSeenBy(actor).findById(id).select('id')) === undefined)
    throw new Failure('not-found', missing.investigation);
}

/** Investigations that were found to be somebody's own lately, so that a run can be stopped while the database is away. */
const ownersLately = new Map<string, string>();
const mostLately = 1000;

/** @throws Failure where an investigation is not somebody's own: who may look at it learns that he may not change it */
export async function mustOwn(actor: Actor, id: string): Promise<void> {
  if ((await owned(actor).findById(id).select('id')) !== undefined) {
    const [oldest] = ownersLately.keys();
    if (ownersLately.size >= mostLately) ownersLately.delete(oldest);
    ownersLately.set(id, actor.id);
    return;
  }
  await mustSee(actor, id);
  mustTeach(actor);
}

/** Whether an investigation was found to be somebody's own lately; the database is not asked. */
export const ownedLately = (actor: Actor, id: string): boolean => ownersLately.get(id) === actor.id;

/** @throws Failure where there is no such run, or none that somebody may look at, or change */
export async function mustReach(actor: Actor, how: 'see' | 'own', run: string): Promise<void> {
  const found = await RunModel.query().findById(run).select('investigationId');
  await within(actor, how, found?.investigationId, 'run');
}

/** @throws Failure where there is no such channel, or none that somebody may look at */
export async function mustSeeChannel(actor: Actor, channel: number): Promise<void> {
  const found = await RunModel.query()
    .joinRelated('channels')
    .where('channels.id', channel)
    .select('run.investigationId')
    .first();
  await within(actor, 'see', found?.investigationId, 'channel');
}

async function within(
  actor: Actor,
  how: 'see' | 'own',
  investigation: string | undefined,
  what: keyof typeof missing,
): Promise<void> {
  const notThere = new Failure('not-found', missing[what]);
  if (investigation === undefined) throw notThere;
  await (how === 'own' ? mustOwn : mustSee)(actor, investigation).catch((error: unknown) => {
    throw error instanceof Failure && error.code === 'not-found' ? notThere : error;
  });
}
