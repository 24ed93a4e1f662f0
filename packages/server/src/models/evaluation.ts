import { type StoredEvaluation } from '@heuristor/core';
import { Model } from 'objection';

/** What the sheets of some people said of a run, with what decided it. */
export class EvaluationModel extends Model {
  static override tableName = 'evaluation';
  static override idColumn = ['runId', 'owners'];
  static override jsonAttributes = ['keys', 'content'];

  declare runId: string;
  /** The id of him whose sheet it is; of several, whose sheets were evaluated together, a hash of their ids in their order. */
  declare owners: string;
  /** The program, and all of the run, that it was made from. */
  declare made: string;
  /** For each sheet what each of its entries depended on. */
  declare keys: Record<string, string>[];
  declare content: StoredEvaluation;
  declare madeAt: Date;
}
