import { Model } from 'objection';

/** Something that may wait until a process has time for it. */
export class JobModel extends Model {
  static override tableName = 'job';
  static override jsonAttributes = ['task'];

  declare id: number;
  declare kind: string;
  /** What is to be done, as its kind understands it. */
  declare task: unknown;
  /** Who wants it, and hears what becomes of it; null where nobody does. */
  declare person: string | null;
  declare investigationId: string | null;
  declare state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  declare attempts: number;
  /** The process that works on it. */
  declare takenBy: string | null;
  declare share: number;
  /** Why it failed. */
  declare sentence: string | null;
  declare notBefore: Date;
  declare createdAt: Date;
  declare endedAt: Date | null;
}
