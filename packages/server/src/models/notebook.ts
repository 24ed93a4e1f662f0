import { Model } from 'objection';

/** What somebody writes over the runs of an investigation; its text is in its updates. */
export class NotebookModel extends Model {
  static override tableName = 'notebook';

  declare id: string;
  declare investigationId: string;
  declare ownerId: string;
  /** How many updates it has had. */
  declare at: number;
  /** Of all its updates together. */
  declare bytes: number;
}
