import { Model } from 'objection';

export class ChannelModel extends Model {
  static override tableName = 'channel';

  declare id: number;
  declare runId: string;
  declare position: number;
  declare key: string;
  declare symbol: string;
  declare quantity: string;
  declare unit: string;
  declare timeUnit: string;
  declare interval: number | null;
  declare start: number;
  declare low: number | null;
  declare high: number | null;
  declare deviceCode: string | null;
  declare zero: number;
  declare reversed: boolean;
}
