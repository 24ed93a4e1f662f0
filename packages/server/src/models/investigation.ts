import { Model } from 'objection';

export class InvestigationModel extends Model {
  static override tableName = 'investigation';
  static override jsonAttributes = ['plan', 'underWay'];

  declare id: string;
  declare name: string;
  declare ownerId: string;
  /** The class or the theme that it belongs to; empty where nobody said. */
  declare theme: string;
  declare isExample: boolean;
  /** A document of any format, see the contracts. */
  declare plan: unknown;
  declare createdAt: Date;
  declare updatedAt: Date;
  declare usedAt: Date | null;
  declare deletedAt: Date | null;
  /** What the server does that is in no run yet; and what of it a restart has ended, in words. */
  declare underWay: unknown;
  /** The process that does it. */
  declare underWayBy: string | null;
  declare endedByRestart: string | null;
}
