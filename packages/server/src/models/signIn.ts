import { Model } from 'objection';

/**
 * What lets somebody in: a link that does so once, a token that does so whenever it is shown, or the cookie that either was changed
 * into. Only the hash is kept.
 */
export class SignInModel extends Model {
  static override tableName = 'sign_in';
  static override idColumn = 'tokenHash';

  declare tokenHash: string;
  declare personId: string;
  declare kind: 'link' | 'token' | 'cookie';
  declare expiresAt: Date;
  declare usedAt: Date | null;
}
