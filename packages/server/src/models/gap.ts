import { Model } from 'objection';

/** An interval in which readings of a channel are missing, in seconds of the run. */
export class GapModel extends Model {
  static override tableName = 'gap';

  declare id: number;
  declare runId: string;
  declare channel: string;
  declare from: number;
  declare to: number;
}
