import { type Calibration } from '@heuristor/contracts';
import { Model } from 'objection';

/** What belongs to a device wherever it is used, kept while it comes and goes. */
// eslint-disable-next-line @typescript-eslint/no-unsafe-declaration-merging
export class DeviceSettingModel extends Model {
  static override tableName = 'device_setting';
  static override idColumn = ['schoolId', 'code'];
  static override jsonAttributes = ['zeros', 'scales', 'numbers'];

  declare schoolId: string;
  declare code: string;
  /** Hash of the key that a device on another machine was let in with. */
  declare keyHash: string | null;
}
// The fields of a calibration are declared once, in the contracts; merging lends them to the model.
// eslint-disable-next-line @typescript-eslint/no-unsafe-declaration-merging, @typescript-eslint/no-empty-object-type
export interface DeviceSettingModel extends Calibration {}
