import { type KeptKind } from '@heuristor/contracts';
import { Model } from 'objection';

/** A document that somebody keeps over the runs of an investigation; its content is of any format, see the contracts. */
export class DocumentModel extends Model {
  static override tableName = 'document';
  static override jsonAttributes = ['content'];

  declare id: string;
  declare investigationId: string;
  declare ownerId: string;
  declare kind: KeptKind;
  declare content: unknown;
  declare version: number;
  declare updatedAt: Date;
}
