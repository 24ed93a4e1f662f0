import { Model } from 'objection';

/** A photograph of a notebook, upright, of a size that a page shows, with nothing in it but the picture (JPEG). */
export class PhotographModel extends Model {
  static override tableName = 'photograph';
  static override idColumn = ['notebookId', 'id'];

  declare notebookId: string;
  declare id: string;
  declare content: Buffer;
  declare width: number;
  declare height: number;
}
