import { type MadeParticipant, type NewParticipant, type Participant } from '@heuristor/contracts';
import { type Teacher } from '../auth/actor';
import { issueOwnToken } from '../auth/signIn';
import { Failure } from '../failure';
import { PersonModel } from '../models/person';

const mostParticipants = 200;

const presentParticipants = (investigationId: string) =>
  PersonModel.query().where({ investigationId }).whereNull('removedAt');

/** Everybody who takes part in an investigation, or only shows it, in the order in which they came. */
export async function listParticipants(investigationId: string): Promise<Participant[]> {
  const rows = await presentParticipants(investigationId).orderBy(['madeAt', 'id']);
  return rows.flatMap(({ id, name, kind }) => (kind === 'teacher' ? [] : [{ id, name, kind }]));
}

/** Lets somebody take part in an investigation; the token is shown now and never again. @throws Failure where there are too many */
export async function addParticipant(
  { school }: Teacher,
  investigationId: string,
  { name, kind }: NewParticipant,
): Promise<MadeParticipant> {
  if ((await presentParticipants(investigationId).resultSize()) >= mostParticipants)
    throw new Failure(
      'too-many-requests',
      `${mostParticipants} take part in this investigation already. Remove one first.`,
    );
  const { id } = await PersonModel.query().insertAndFetch({ name, kind, schoolId: school, investigationId });
  return { id, name, kind, token: await issueOwnToken(id) };
}

/** Shuts somebody out; what was worked out by them stays. @throws Failure where there is nobody like that */
export async function removeParticipant(investigationId: string, id: string): Promise<void> {
  const removed = await presentParticipants(investigationId).findById(id).patch({ removedAt: new Date() });
  if (removed === 0) throw new Failure('not-found', 'Nobody like that takes part in this investigation.');
}
