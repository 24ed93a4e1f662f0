import { type PinContent } from '@heuristor/contracts';
import { Model } from 'objection';

/** What was seen when somebody pinned it; never changed. */
export class PinModel extends Model {
  static override tableName = 'pin';
  static override idColumn = ['notebookId', 'id'];
  static override jsonAttributes = ['content'];

  declare notebookId: string;
  declare id: string;
  declare content: PinContent;
}
