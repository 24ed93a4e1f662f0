import { type DeviceToken, type MadeToken, type Pairing } from '@heuristor/contracts';
import { randomBytes, randomInt } from 'node:crypto';
import { hashOf } from '../auth/signIn';
import { Failure } from '../failure';
import { DeviceTokenModel } from '../models/deviceToken';

const mostTokens = 100;
const pairingMinutes = 10;
/** Letters and digits that are not taken for one another. */
const alphabet = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';

const presented = ({ id, code, name, madeAt, usedAt }: DeviceTokenModel): DeviceToken => ({
  id,
  code,
  name,
  madeAt: madeAt.toISOString(),
  usedAt: usedAt?.toISOString() ?? null,
});

export const listTokens = async (schoolId: string): Promise<DeviceToken[]> =>
  (await DeviceTokenModel.query().where({ schoolId }).orderBy('id')).map(presented);

/** Makes a token; it is shown now and never again. @throws Failure where there are too many */
export async function makeToken(schoolId: string, name: string): Promise<MadeToken> {
  if ((await DeviceTokenModel.query().where({ schoolId }).resultSize()) >= mostTokens)
    throw new Failure('too-many-requests', `There are ${mostTokens} devices already. Revoke one first.`);
  const token = randomBytes(24).toString('base64url');
  for (;;) {
    const code = `H${randomInt(1, 100)}-${alphabet[randomInt(0, 24)]}`;
    const made = await DeviceTokenModel.query()
      .insert({ schoolId, code, name, tokenHash: hashOf(token) })
      .onConflict('code')
      .ignore()
      .returning('*')
      .first();
    if (made !== undefined)
      return { ...presented(await DeviceTokenModel.query().findById(made.id).throwIfNotFound()), token };
  }
}

/** @returns the code of the device that is shut out @throws Failure */
export async function withdrawToken(schoolId: string, id: number): Promise<string> {
  const found = await DeviceTokenModel.query().findById(id).where({ schoolId });
  if (found === undefined) throw new Failure('not-found', 'There is no such device any more.');
  await DeviceTokenModel.query().deleteById(id);
  return found.code;
}

/** The device behind a token, or null. */
export async function deviceOfToken(token: string): Promise<DeviceTokenModel | null> {
  return (
    (await DeviceTokenModel.query()
      .where({ tokenHash: hashOf(token) })
      .first()) ?? null
  );
}

export const markUsed = (id: number) => DeviceTokenModel.query().findById(id).patch({ usedAt: new Date() });

/** Short codes by which phones let themselves in, for a few minutes each. */
export class Pairings {
  private readonly codes = new Map<string, { until: number; school: string }>();

  /** @param school that the phone is let into */
  make(school: string): Pairing {
    const now = Date.now();
    for (const [code, { until }] of this.codes) if (until < now) this.codes.delete(code);
    const code = Array.from({ length: 6 }, () => alphabet[randomInt(0, alphabet.length)]).join('');
    const until = now + pairingMinutes * 60_000;
    this.codes.set(code, { until, school });
    return { code, until: new Date(until).toISOString() };
  }

  /** @returns the school that it lets into @throws Failure where the code is none, or has run out */
  redeem(typed: string): string {
    const code = typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
    const found = this.codes.get(code);
    if (found === undefined || found.until < Date.now())
      throw new Failure('link-used', 'This code is wrong, or its ten minutes are over. Ask for a new one.');
    return found.school;
  }
}
