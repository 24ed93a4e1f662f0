import { Model } from 'objection';

/** An answer to a question of a guide that somebody had checked, and what was found. */
export class GuideCheckModel extends Model {
  static override tableName = 'guide_check';
  static override jsonAttributes = ['answer'];

  declare id: number;
  declare investigationId: string;
  declare personId: string;
  declare item: string;
  declare answer: unknown;
  declare isRight: boolean;
  declare says: string;
  declare madeAt: Date;
}
