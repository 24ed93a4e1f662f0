import { Model } from 'objection';

/** A part of a channel's readings, float64 little endian. */
export class BlockModel extends Model {
  static override tableName = 'block';
  static override idColumn = ['channelId', 'sequence'];

  declare channelId: number;
  declare sequence: number;
  declare firstIndex: number;
  declare count: number;
  declare values: Buffer;
  declare times: Buffer | null;
}
