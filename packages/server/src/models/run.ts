import { type ConditionValues, type Preview, type Run, type Spot } from '@heuristor/contracts';
import { Model } from 'objection';
import { ChannelModel } from './channel';
import { GapModel } from './gap';
import { SpotModel } from './spot';

export class RunModel extends Model {
  static override tableName = 'run';
  static override jsonAttributes = ['plan', 'notes', 'preview', 'conditions', 'spot'];
  static override relationMappings = () => ({
    channels: {
      relation: Model.HasManyRelation,
      modelClass: ChannelModel,
      join: { from: 'run.id', to: 'channel.runId' },
    },
    spots: {
      relation: Model.HasManyRelation,
      modelClass: SpotModel,
      join: { from: 'run.id', to: 'spot.runId' },
    },
    gaps: {
      relation: Model.HasManyRelation,
      modelClass: GapModel,
      join: { from: 'run.id', to: 'gap.runId' },
    },
  });

  declare id: string;
  declare investigationId: string;
  declare number: number;
  declare name: string;
  declare origin: Run['origin'];
  declare state: Run['state'];
  /** The plan as it was when the run began. */
  declare plan: unknown;
  declare notes: string[];
  declare preview: Preview | null;
  declare practice: boolean;
  declare conditions: ConditionValues;
  declare group: string;
  declare remark: string;
  /** The planned row of the trials that it was recorded for. */
  declare planned: string | null;
  /** The process that records it, or recorded it. */
  declare recordedBy: string | null;
  declare startedAt: Date;
  /** Where the clock hung by which it was taken; null where nobody knows. */
  declare timeZone: string | null;
  declare endedAt: Date | null;
  declare deletedAt: Date | null;
  declare channels?: ChannelModel[];
  declare gaps?: GapModel[];
  /** How it was taken reading by reading; null of a run against time. */
  declare spot: Omit<Spot, 'rows'> | null;
  declare spots?: SpotModel[];
}
