import { type Plan, type WorkingsDocument } from '@heuristor/contracts';
import { Model } from 'objection';
import { RunModel } from './run';

export class InvestigationModel extends Model {
  static override tableName = 'investigation';
  static override jsonAttributes = ['plan', 'workings'];
  static override relationMappings = () => ({
    runs: {
      relation: Model.HasManyRelation,
      modelClass: RunModel,
      join: { from: 'investigation.id', to: 'run.investigationId' },
    },
  });

  declare id: string;
  declare name: string;
  declare plan: Plan;
  declare workings: WorkingsDocument;
  declare workingsVersion: number;
  declare createdAt: Date;
  declare updatedAt: Date;
  declare deletedAt: Date | null;
  declare runs?: RunModel[];
}
