import { type Calibration, noCalibration } from '@heuristor/contracts';
import { createHash, timingSafeEqual } from 'node:crypto';
import { Failure } from '../failure';
import { DeviceSettingModel } from '../models/deviceSetting';
import { storedUse } from '../services/sensorUse';
import { type LinkedDevice, type Use } from './device';

/** @throws Failure for a number that the device does not take */
export function withinBounds({ description, code }: LinkedDevice, calibration: Calibration): Calibration {
  for (const { key, label, low, high, unit } of description.numbers) {
    const value = calibration.numbers[key];
    if (value !== undefined && !(value >= low && value <= high))
      throw new Failure(
        'invalid-request',
        `${label} of ${code} must lie between ${low} and ${high} ${unit}.`,
      );
  }
  return calibration;
}

export const hashOf = (key: string) => createHash('sha256').update(key).digest('hex');

export const isKey = (key: string, hash: string) =>
  timingSafeEqual(Buffer.from(hashOf(key)), Buffer.from(hash));

/** What is kept of a device, and who uses it. */
export async function storedSettings(
  school: string,
  code: string,
): Promise<{ calibration: Calibration; keyHash: string | null; use: Use | null }> {
  const row = await DeviceSettingModel.query().findById([school, code]);
  const use = await storedUse(school, code);
  if (row === undefined) return { calibration: noCalibration, keyHash: null, use };
  const { zeros, scales, numbers, keyHash } = row;
  return { calibration: { zeros, scales, numbers }, keyHash, use };
}
