import {
  type ControlAction,
  type Device,
  type DevicePatch,
  type Hello,
  type SampleFrame,
  type Scene,
} from '@heuristor/contracts';
import { EventEmitter } from 'node:events';
import { Failure } from '../failure';
import { DeviceSettingModel } from '../models/deviceSetting';
import { LinkedDevice, type Settings } from './device';
import { zeroReadings } from './zeroing';

interface Events {
  changed: [];
  samples: [device: LinkedDevice, frame: SampleFrame];
  gone: [device: LinkedDevice];
  scene: [code: string, values: Scene['values']];
}

/** All devices on the link, and what the teacher has set for them. */
export class DeviceRegistry extends EventEmitter<Events> {
  private readonly devices = new Map<string, LinkedDevice>();
  private stagesWatched = false;
  /** Says why a device must not be changed right now, or null. */
  busy: (code: string) => string | null = () => null;

  list(): Device[] {
    return [...this.devices.values()].map((device) => ({
      code: device.code,
      model: device.hello.device.model,
      handle: device.handle,
      connected: device.settings.connected,
      present: device.present,
      rate: device.rate,
      rates: device.hello.rates,
      reversed: device.settings.reversed,
      channels: device.hello.channels,
      zeros: device.settings.zeros,
      stage: device.hello.stage ?? null,
    }));
  }

  /** Devices that are connected by the teacher and on the link. */
  ready(): LinkedDevice[] {
    return [...this.devices.values()].filter((device) => device.present && device.settings.connected);
  }

  /** @throws Failure */
  find(code: string): LinkedDevice {
    const device = this.devices.get(code);
    if (device === undefined)
      throw new Failure(
        'not-found',
        `There is no device ${code} on the link. Switch it on and look at the code on its housing.`,
      );
    return device;
  }

  /** A device says hello. @returns the device, or null where one of that code is on the link already */
  async arrive(hello: Hello, send: NonNullable<LinkedDevice['send']>): Promise<LinkedDevice | null> {
    const { code } = hello.device;
    const known = this.devices.get(code);
    if (known?.present === true) return null;
    const device = known ?? new LinkedDevice(this.devices.size + 1, hello, await storedSettings(code));
    if (this.devices.get(code)?.present === true) return null;
    device.hello = hello;
    device.send = send;
    this.devices.set(code, device);
    send({ type: 'welcome', version: hello.version });
    send({ type: 'watched', watched: this.stagesWatched });
    if (device.settings.connected) device.restart();
    this.emit('changed');
    return device;
  }

  leave(device: LinkedDevice): void {
    device.send = null;
    device.stream = null;
    this.emit('gone', device);
    this.emit('changed');
  }

  samples(device: LinkedDevice, frame: SampleFrame): void {
    if (device.accept(frame)) this.emit('samples', device, frame);
  }

  /** @throws Failure for an impossible rate, an absent device or one that is recording */
  async change(code: string, patch: DevicePatch): Promise<void> {
    const device = this.find(code);
    const reason = this.busy(code);
    if (reason !== null) throw new Failure('already-recording', reason);
    const { lowest, highest } = device.hello.rates;
    if (patch.rate !== undefined && !(patch.rate >= lowest && patch.rate <= highest))
      throw new Failure(
        'impossible-rate',
        `${device.code} cannot take ${patch.rate} readings a second. Choose a rate from ${lowest} to ${highest} Hz.`,
      );
    device.settings = { ...device.settings, ...patch };
    await this.store(device);
    if (device.settings.connected && (device.stream === null || patch.rate !== undefined)) device.restart();
    if (!device.settings.connected) device.halt();
    this.emit('changed');
  }

  /** Averages a second of readings into a new zero. @throws Failure where the target moves or nothing comes */
  async zero(code: string): Promise<void> {
    const device = this.find(code);
    const reason = this.busy(code);
    if (reason !== null) throw new Failure('already-recording', reason);
    if (!device.present || device.stream === null)
      throw new Failure(
        'device-absent',
        `${code} sends nothing. Connect it and wait for its reading before zeroing.`,
      );
    const zeros = await zeroReadings(this, device);
    device.settings = { ...device.settings, zeros: { ...device.settings.zeros, ...zeros } };
    await this.store(device);
    this.emit('changed');
  }

  async clearZero(code: string): Promise<void> {
    const device = this.find(code);
    const reason = this.busy(code);
    if (reason !== null) throw new Failure('already-recording', reason);
    device.settings = { ...device.settings, zeros: {} };
    await this.store(device);
    this.emit('changed');
  }

  flash(code: string): void {
    this.find(code).send?.({ type: 'flash' });
  }

  control(code: string, control: ControlAction): void {
    this.devices.get(code)?.send?.({ type: 'control', control });
  }

  watchStages(watched: boolean): void {
    if (watched === this.stagesWatched) return;
    this.stagesWatched = watched;
    for (const device of this.devices.values()) device.send?.({ type: 'watched', watched });
  }

  private async store({ code, settings }: LinkedDevice): Promise<void> {
    await DeviceSettingModel.query()
      .insert({ code, ...settings })
      .onConflict('code')
      .merge();
  }
}

async function storedSettings(code: string): Promise<Settings> {
  const row = await DeviceSettingModel.query().findById(code);
  return row ?? { connected: false, rate: null, reversed: false, zeros: {} };
}
