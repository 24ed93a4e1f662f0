import { type Calibration, type StillReading } from '@heuristor/contracts';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';
import { type InRuns } from '../presence/inRuns';
import { type Presence } from '../presence/presence';
import { keepSettings } from '../services/deviceSettings';
import { checkChangeable } from './changeable';
import { stillReadings, zerosOf } from './stillReadings';

interface Parts {
  presence: Presence;
  bus: Bus;
  inRuns: InRuns;
}

/** What turns what a device sends into what it measures, wherever it is used: zeros, typed points, its own numbers. */
export class Calibrations {
  private readonly presence: Presence;
  private readonly bus: Bus;
  private readonly inRuns: InRuns;

  constructor({ presence, bus, inRuns }: Parts) {
    this.presence = presence;
    this.bus = bus;
    this.inRuns = inRuns;
  }

  /** Averages a second of readings into new zeros. @throws Failure where the target moves or nothing comes */
  async zero(code: string, channels?: readonly string[]): Promise<void> {
    const device = this.presence.find(code);
    checkChangeable(this.inRuns, device);
    const zeros = zerosOf(device, await stillReadings(this.bus, device, channels));
    await this.set(code, { ...device.calibration, zeros: { ...device.calibration.zeros, ...zeros } });
  }

  /** A second of readings of one channel, before any calibration. @throws Failure */
  async still(code: string, channel: string): Promise<StillReading> {
    const device = this.presence.find(code);
    const readings = await stillReadings(this.bus, device, [channel]);
    const zeros = zerosOf(device, readings);
    const [{ mean, spread, count }] = readings;
    return { mean, spread, count, uncertainty: zeros[channel].uncertainty ?? 0 };
  }

  /** Puts another calibration in place of the present one. @throws Failure while it is recording */
  async set(code: string, calibration: Calibration): Promise<void> {
    const device = this.presence.find(code);
    checkChangeable(this.inRuns, device);
    const before = device.calibration;
    device.calibration = withinBounds(device, calibration);
    try {
      await keepSettings(this.presence.school, device);
    } catch (error) {
      device.calibration = before;
      throw error;
    }
    device.sendNumbers();
    this.bus.emit('devices');
  }
}

/** @throws Failure for a number that the device does not take */
function withinBounds({ description, code }: LinkedDevice, calibration: Calibration): Calibration {
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
