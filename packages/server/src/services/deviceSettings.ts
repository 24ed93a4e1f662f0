import { type Calibration, noCalibration } from '@heuristor/contracts';
import { DeviceSettingModel } from '../models/deviceSetting';

/** What belongs to a device wherever it is used. */
export interface DeviceSettings {
  calibration: Calibration;
  /** Hash of the key with which it was let in; null of one that came with the program or waits. */
  keyHash: string | null;
}

/** What is kept of a device of a school; nothing of one that nobody has set anything for. */
export async function storedSettings(school: string, code: string): Promise<DeviceSettings> {
  const row = await DeviceSettingModel.query().findById([school, code]);
  if (row === undefined) return { calibration: noCalibration, keyHash: null };
  const { zeros, scales, numbers, keyHash } = row;
  return { calibration: { zeros, scales, numbers }, keyHash };
}

export async function keepSettings(
  school: string,
  { code, calibration, keyHash }: DeviceSettings & { code: string },
): Promise<void> {
  await DeviceSettingModel.query()
    .insert({ schoolId: school, code, ...calibration, keyHash })
    .onConflict(['schoolId', 'code'])
    .merge();
}
