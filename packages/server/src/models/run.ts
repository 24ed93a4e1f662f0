import { type Gap, type Plan, type Run } from '@heuristor/contracts';
import { Model } from 'objection';
import { ChannelModel } from './channel';

export class RunModel extends Model {
  static override tableName = 'run';
  static override jsonAttributes = ['plan', 'gaps'];
  static override relationMappings = () => ({
    channels: {
      relation: Model.HasManyRelation,
      modelClass: ChannelModel,
      join: { from: 'run.id', to: 'channel.runId' },
    },
  });

  declare id: string;
  declare investigationId: string;
  declare number: number;
  declare name: string;
  declare origin: Run['origin'];
  declare state: Run['state'];
  declare shown: boolean;
  declare style: number;
  declare plan: Plan;
  declare gaps: Gap[];
  declare startedAt: Date;
  declare endedAt: Date | null;
  declare deletedAt: Date | null;
  declare channels?: ChannelModel[];
}
