import { Model } from 'objection';

/** The workings that somebody owns over the runs of an investigation; the document is of any format, see the contracts. */
export class WorkingsModel extends Model {
  static override tableName = 'workings';
  static override jsonAttributes = ['document'];

  declare id: string;
  declare investigationId: string;
  declare ownerId: string;
  declare document: unknown;
  declare version: number;
  declare updatedAt: Date;
}
