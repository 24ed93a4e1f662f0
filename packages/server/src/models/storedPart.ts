import { Model } from 'objection';

/** A part of a stored file. */
export class StoredPartModel extends Model {
  static override tableName = 'stored_part';
  static override idColumn = ['fileId', 'part'];

  declare fileId: string;
  declare part: number;
  declare bytes: Buffer;
}
