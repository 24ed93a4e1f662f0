import { Model } from 'objection';

export class InvestigationModel extends Model {
  static override tableName = 'investigation';
  static override jsonAttributes = ['plan'];

  declare id: string;
  declare name: string;
  /** A document of any format, see the contracts. */
  declare plan: unknown;
  declare createdAt: Date;
  declare updatedAt: Date;
  declare usedAt: Date | null;
  declare deletedAt: Date | null;
}
