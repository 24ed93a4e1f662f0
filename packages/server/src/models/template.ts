import { Model } from 'objection';

/** A sheet that is kept to be used over other runs; the document is of any format, see the contracts. */
export class TemplateModel extends Model {
  static override tableName = 'template';
  static override jsonAttributes = ['channels', 'conditions', 'document', 'trials', 'guide'];

  declare id: string;
  declare ownerId: string;
  declare name: string;
  declare about: string;
  declare channels: unknown;
  declare conditions: unknown;
  declare document: unknown;
  /** Tables over its runs; null of one that was kept before there were any. */
  declare trials: unknown;
  /** What leads through it; null of one that was kept before there were any. */
  declare guide: unknown;
  declare madeAt: Date;
  declare deletedAt: Date | null;
}
