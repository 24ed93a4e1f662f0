import { type Zero } from '@heuristor/contracts';
import { Model } from 'objection';

/** What the teacher has set for a device, kept while the device comes and goes. */
export class DeviceSettingModel extends Model {
  static override tableName = 'device_setting';
  static override idColumn = 'code';
  static override jsonAttributes = ['zeros'];

  declare code: string;
  declare connected: boolean;
  declare rate: number | null;
  declare reversed: boolean;
  declare zeros: Record<string, Zero>;
  /** Hash of the key that a device on another machine was let in with. */
  declare keyHash: string | null;
}
