import { Model } from 'objection';

/** A short film of a notebook, without what it says of where and by whom it was made (MP4). */
export class FilmModel extends Model {
  static override tableName = 'film';
  static override idColumn = ['notebookId', 'id'];

  declare notebookId: string;
  declare id: string;
  declare content: Buffer;
}
