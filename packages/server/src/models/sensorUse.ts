import { type Setup } from '@heuristor/contracts';
import { Model } from 'objection';

/** How an investigation uses a device, or used it last; of one device at most one use is active. */
export class SensorUseModel extends Model {
  static override tableName = 'sensor_use';
  static override idColumn = ['investigationId', 'code'];
  static override jsonAttributes = ['setup'];

  declare investigationId: string;
  /** Whose device it is. */
  declare schoolId: string;
  declare code: string;
  declare active: boolean;
  declare setup: Setup;
}
