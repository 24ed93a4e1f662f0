import { createHash, randomBytes } from 'node:crypto';
import { type TransactionOrKnex } from 'objection';
import { Failure } from '../failure';
import { PersonModel, SchoolModel } from '../models/person';
import { SignInModel } from '../models/signIn';
import { type Actor, type Teacher, actorOf } from './actor';

const linkHours = 24;
const cookieDays = 60;
const tokenDays = 400;

/** Tokens are 256 random bits, so a plain hash keeps them safe at rest. */
export const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');
const newToken = () => randomBytes(32).toString('base64url');
const inHours = (hours: number) => new Date(Date.now() + hours * 3_600_000);

/** The one school of this installation. */
export async function onlySchool(transaction?: TransactionOrKnex): Promise<SchoolModel> {
  return SchoolModel.query(transaction).orderBy('madeAt').first().throwIfNotFound();
}

/** The one teacher of this installation. */
export async function onlyTeacher(transaction?: TransactionOrKnex): Promise<Teacher> {
  const found =
    (await PersonModel.query(transaction)
      .where({ kind: 'teacher' })
      .whereNull('removedAt')
      .orderBy(['madeAt', 'id'])
      .first()) ??
    (await PersonModel.query(transaction).insertAndFetch({
      name: 'Teacher',
      schoolId: (await onlySchool(transaction)).id,
    }));
  return { kind: 'teacher', id: found.id, name: found.name, school: found.schoolId };
}

/** A token for a sign-in link of the one teacher; it works once, within a day. @param on a database other than the one that is open */
export async function issueLinkToken(on?: TransactionOrKnex): Promise<string> {
  return issue('link', (await onlyTeacher(on)).id, inHours(linkHours), on);
}

/** A token by which a participant, or a screen, signs in as often as it is shown. */
export const issueOwnToken = (person: string): Promise<string> =>
  issue('token', person, inHours(24 * tokenDays));

async function issue(
  kind: SignInModel['kind'],
  personId: string,
  expiresAt: Date,
  on?: TransactionOrKnex,
): Promise<string> {
  const token = newToken();
  await SignInModel.query(on).insert({ tokenHash: hashOf(token), personId, kind, expiresAt });
  return token;
}

/** Changes the token of a link, or one of a person's own, into that of a cookie. @throws Failure where it does not let in */
export async function redeemToken(token: string): Promise<{ cookie: string; maxAgeSeconds: number }> {
  const shown = () =>
    SignInModel.query()
      .where({ tokenHash: hashOf(token) })
      .where('expiresAt', '>', new Date());
  // One statement marks and tells, so that of two requests with the same link only one gets in.
  const marked =
    (await shown()
      .where({ kind: 'link' })
      .whereNull('usedAt')
      .patch({ usedAt: new Date() })
      .returning('personId')
      .first()) ?? (await shown().where({ kind: 'token' }).first());
  if (marked === undefined)
    throw new Failure(
      'link-used',
      'This sign-in link has been used or has run out. Run “npm run sign-in-link” where Heuristor is installed for a new one.',
    );
  const cookie = await issue('cookie', marked.personId, inHours(24 * cookieDays));
  return { cookie, maxAgeSeconds: cookieDays * 86_400 };
}

/** Whom the cookies that were found lately belong to, and until when that is believed without asking the database; by their hashes. */
const lately = new Map<string, { actor: Actor; until: number }>();
const latelyMilliseconds = 12 * 3_600_000;
const mostLately = 1000;

/** Who a cookie was found to belong to lately; the database is not asked, for it may be away. */
export function actorLately(cookie: string | undefined): Actor | null {
  const found = cookie === undefined ? undefined : lately.get(hashOf(cookie));
  return found !== undefined && found.until > Date.now() ? found.actor : null;
}

/** Who is behind a cookie; null where nobody is. */
export async function actorOfCookie(cookie: string | undefined): Promise<Actor | null> {
  if (cookie === undefined) return null;
  const tokenHash = hashOf(cookie);
  // One question: every request asks it.
  const found = (await PersonModel.query()
    .join('sign_in', 'sign_in.personId', 'person.id')
    .where({ 'sign_in.tokenHash': tokenHash, 'sign_in.kind': 'cookie' })
    .where('sign_in.expiresAt', '>', new Date())
    .select('person.*', 'sign_in.expiresAt')
    .first()) as (PersonModel & Pick<SignInModel, 'expiresAt'>) | undefined;
  lately.delete(tokenHash);
  const actor = found === undefined ? null : actorOf(found);
  if (found === undefined || actor === null) return null;
  const [oldest] = lately.keys();
  if (lately.size >= mostLately) lately.delete(oldest);
  const until = Math.min(Date.now() + latelyMilliseconds, found.expiresAt.getTime());
  lately.set(tokenHash, { actor, until });
  return actor;
}

export async function forgetCookie(cookie: string): Promise<void> {
  lately.delete(hashOf(cookie));
  await SignInModel.query()
    .where({ tokenHash: hashOf(cookie), kind: 'cookie' })
    .delete();
}
