import { type Clock, type SetupPatch } from '@heuristor/contracts';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type LinkedDevice, type Use } from '../link/device';
import { type InRuns } from '../presence/inRuns';
import { type Presence } from '../presence/presence';
import { freeSensor, freeSensorsOf, keepSetup, takeSensor } from '../services/sensorUse';
import { checkChangeable } from './changeable';
import { changedSetup } from './setupChanges';

interface Parts {
  presence: Presence;
  bus: Bus;
  clock: Clock;
  inRuns: InRuns;
}

/** Which investigation uses a sensor, and set up how. */
export class SensorUses {
  private readonly presence: Presence;
  private readonly bus: Bus;
  private readonly clock: Clock;
  private readonly inRuns: InRuns;

  constructor({ presence, bus, clock, inRuns }: Parts) {
    this.presence = presence;
    this.bus = bus;
    this.clock = clock;
    this.inRuns = inRuns;
  }

  /**
   * An investigation takes a device for its own, set up as it had it last.
   * @throws Failure where a run is being recorded with it, or where it waits to be let in
   */
  async take(investigation: { id: string; name: string }, code: string): Promise<void> {
    const device = this.presence.find(code);
    if (device.use?.investigation === investigation.id) return;
    checkChangeable(this.inRuns, device);
    const setup = await takeSensor(this.presence.school, investigation.id, code);
    this.set(device, { investigation: investigation.id, name: investigation.name, setup });
  }

  /** Sets a device free. @throws Failure */
  async free(investigation: string, code: string): Promise<void> {
    const device = this.presence.find(code);
    if (device.use?.investigation !== investigation) return;
    checkChangeable(this.inRuns, device);
    await freeSensor(this.presence.school, code);
    this.set(device, null);
  }

  /** Sets all devices of an investigation free, since it is removed. */
  async freeAll(investigation: string): Promise<void> {
    await freeSensorsOf(investigation);
    for (const device of this.of(investigation)) this.set(device, null);
  }

  /** The investigation has another name; whoever looks for its sensors reads it. */
  renamed(investigation: string, name: string): void {
    for (const device of this.of(investigation))
      if (device.use !== null) device.use = { ...device.use, name };
    this.bus.emit('devices');
  }

  /** Changes how an investigation uses a device. @throws Failure for what the device cannot do, or while it is recording */
  async setUp(investigation: string, code: string, patch: SetupPatch): Promise<void> {
    const device = this.presence.find(code);
    const { use } = device;
    if (use?.investigation !== investigation)
      throw new Failure(
        'device-absent',
        use === null
          ? `${code} is not connected to this investigation. Connect it first.`
          : `${code} is in use in “${use.name}”. Take it over first.`,
      );
    checkChangeable(this.inRuns, device);
    const setup = changedSetup(device, patch);
    device.use = { ...use, setup };
    try {
      await keepSetup(investigation, code, setup);
    } catch (error) {
      device.use = use;
      throw error;
    }
    this.set(device, device.use);
  }

  private of(investigation: string): LinkedDevice[] {
    return this.presence.all().filter(({ use }) => use?.investigation === investigation);
  }

  private set(device: LinkedDevice, use: Use | null): void {
    device.use = use;
    device.settle(this.clock.now());
    this.bus.emit('devices');
  }
}
