import { type ChannelFields, channelFieldsSchema } from '@heuristor/contracts';
import { Model } from 'objection';

/** A channel of a run; its fields are those of the contracts. */
// eslint-disable-next-line @typescript-eslint/no-unsafe-declaration-merging
export class ChannelModel extends Model {
  static override tableName = 'channel';
  static override jsonAttributes = ['sampling', 'applied', 'edges'];

  declare id: number;
  declare runId: string;
  declare position: number;
}
// The fields are declared once, in the contracts; merging lends them to the model.
// eslint-disable-next-line @typescript-eslint/no-unsafe-declaration-merging, @typescript-eslint/no-empty-object-type
export interface ChannelModel extends ChannelFields {}

/** The fields of a channel as they are stored and sent. */
export const channelFieldsOf = (row: ChannelModel): ChannelFields => channelFieldsSchema.parse(row);
