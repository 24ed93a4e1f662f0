import { Model } from 'objection';

export class TeacherModel extends Model {
  static override tableName = 'teacher';

  declare id: string;
  declare name: string;
}

/** A one-time link or the cookie it was changed into; only the hash of the token is kept. */
export class SignInModel extends Model {
  static override tableName = 'sign_in';
  static override idColumn = 'tokenHash';

  declare tokenHash: string;
  declare teacherId: string;
  declare kind: 'link' | 'cookie';
  declare expiresAt: Date;
  declare usedAt: Date | null;
}
