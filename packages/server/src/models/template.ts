import { Model } from 'objection';

/** A sheet that is kept to be used over other runs; the document is of any format, see the contracts. */
export class TemplateModel extends Model {
  static override tableName = 'template';
  static override jsonAttributes = ['channels', 'conditions', 'document'];

  declare id: string;
  declare ownerId: string;
  declare name: string;
  declare about: string;
  declare channels: unknown;
  declare conditions: unknown;
  declare document: unknown;
  declare madeAt: Date;
  declare deletedAt: Date | null;
}
