import { Model } from 'objection';

/** Bytes that belong to an investigation: what they are for, and whose they are. They lie in parts (`stored_part`). */
export class StoredFileModel extends Model {
  static override tableName = 'stored_file';
  static override jsonAttributes = ['about'];

  declare id: string;
  declare purpose: string;
  /** Who brought it. */
  declare owner: string;
  declare investigationId: string;
  declare name: string;
  declare bytes: number;
  /** Whether all of it has come. */
  declare whole: boolean;
  /** What else its purpose wants to know. */
  declare about: unknown;
  declare touchedAt: Date;
}
