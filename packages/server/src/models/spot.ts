import { type SpotCell } from '@heuristor/contracts';
import { Model } from 'objection';

/** One spot reading. */
export class SpotModel extends Model {
  static override tableName = 'spot';
  static override jsonAttributes = ['cells'];

  declare id: number;
  declare runId: string;
  declare cells: Record<string, SpotCell>;
  declare at: Date;
  declare removedAt: Date | null;
}
