import { createHash, randomBytes } from 'node:crypto';
import { type Transaction } from 'objection';
import { Failure } from '../failure';
import { SignInModel, TeacherModel } from '../models/signIn';

const linkHours = 24;
const cookieDays = 60;

/** Tokens are 256 random bits, so a plain hash keeps them safe at rest. */
export const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');
const newToken = () => randomBytes(32).toString('base64url');
const inHours = (hours: number) => new Date(Date.now() + hours * 3_600_000);

/** The one teacher of this installation, who owns what is worked out. */
export async function onlyTeacher(transaction?: Transaction): Promise<TeacherModel> {
  return (
    (await TeacherModel.query(transaction).orderBy('id').first()) ??
    (await TeacherModel.query(transaction).insertAndFetch({ name: 'Teacher' }))
  );
}

/** A token for a sign-in link that works once, within a day. */
export async function issueLinkToken(): Promise<string> {
  const teacher = await onlyTeacher();
  const token = newToken();
  await SignInModel.query().insert({
    tokenHash: hashOf(token),
    teacherId: teacher.id,
    kind: 'link',
    expiresAt: inHours(linkHours),
  });
  return token;
}

/** Changes the token of a link into that of a cookie. @throws Failure where it was used before or has run out */
export async function redeemLinkToken(token: string): Promise<{ cookie: string; maxAgeSeconds: number }> {
  // One statement marks and tells, so that of two requests with the same token only one gets in.
  const marked = await SignInModel.query()
    .where({ tokenHash: hashOf(token), kind: 'link' })
    .whereNull('usedAt')
    .where('expiresAt', '>', new Date())
    .patch({ usedAt: new Date() })
    .returning('teacherId')
    .first();
  if (marked === undefined)
    throw new Failure(
      'link-used',
      'This sign-in link has been used or has run out. Run “npm run sign-in-link” where Heuristor is installed for a new one.',
    );
  const cookie = newToken();
  await SignInModel.query().insert({
    tokenHash: hashOf(cookie),
    teacherId: marked.teacherId,
    kind: 'cookie',
    expiresAt: inHours(24 * cookieDays),
  });
  return { cookie, maxAgeSeconds: cookieDays * 86_400 };
}

/** Until when the cookies that were found lately are believed without the database being asked, by their hashes. */
const lately = new Map<string, number>();
const latelyMilliseconds = 12 * 3_600_000;
const mostLately = 1000;

/** Whether a cookie was found to be somebody's lately; the database is not asked, for it may be away. */
export const wasKnownLately = (cookie: string | undefined): boolean =>
  cookie !== undefined && (lately.get(hashOf(cookie)) ?? 0) > Date.now();

/** The teacher behind a cookie, or null. */
export async function teacherOfCookie(cookie: string | undefined): Promise<TeacherModel | null> {
  if (cookie === undefined) return null;
  const tokenHash = hashOf(cookie);
  const found = await SignInModel.query()
    .where({ tokenHash, kind: 'cookie' })
    .where('expiresAt', '>', new Date())
    .first();
  lately.delete(tokenHash);
  if (found === undefined) return null;
  const [oldest] = lately.keys();
  if (lately.size >= mostLately) lately.delete(oldest);
  lately.set(tokenHash, Math.min(Date.now() + latelyMilliseconds, found.expiresAt.getTime()));
  return (await TeacherModel.query().findById(found.teacherId)) ?? null;
}

export async function forgetCookie(cookie: string): Promise<void> {
  lately.delete(hashOf(cookie));
  await SignInModel.query()
    .where({ tokenHash: hashOf(cookie), kind: 'cookie' })
    .delete();
}
