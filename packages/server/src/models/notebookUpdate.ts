import { Model } from 'objection';

/** An update of a notebook, or several that were joined, of which it bears the number of the last. */
export class NotebookUpdateModel extends Model {
  static override tableName = 'notebook_update';
  static override idColumn = ['notebookId', 'at'];

  declare notebookId: string;
  declare at: number;
  declare content: Buffer;
}
