import { type ChannelFields, type Plan, type SamplingKind } from '@heuristor/contracts';
import { Model } from 'objection';

/** One channel of a run that a device keeps, as it was set when the run was prepared. Stored = scale × sent + offset. */
export interface AwayTrack {
  /** Key of its stream, and its place in the frames of that. */
  stream: string;
  channel: number;
  sampling: SamplingKind;
  scale: number;
  offset: number;
  fields: ChannelFields;
}

/** A run that a device was told to record by itself. */
export class AwayRunModel extends Model {
  static override tableName = 'away_run';
  static override jsonAttributes = ['plan', 'tracks'];

  declare id: number;
  declare code: string;
  declare investigationId: string;
  declare plan: Plan;
  declare tracks: AwayTrack[];
  declare seconds: number | null;
  declare preparedAt: Date;
  /** The device's clock when it was prepared, in seconds. */
  declare clockAtPreparation: number | null;
  /** Whether a person wants it fetched, and the device to end with it. */
  declare wanted: 'end' | 'go-on' | null;
  /** The run that it becomes. */
  declare runId: string | null;
  declare discardedAt: Date | null;
  /** When all of it was here and the device was told to forget it. */
  declare storedAt: Date | null;
}
