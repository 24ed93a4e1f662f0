import {
  type ControlAction,
  type Device,
  type DevicePatch,
  type Hello,
  type SampleFrame,
  type Scene,
} from '@heuristor/contracts';
import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { performance } from 'node:perf_hooks';
import { Failure } from '../failure';
import { DeviceSettingModel } from '../models/deviceSetting';
import { LinkedDevice, type Settings } from './device';
import { zeroReadings } from './zeroing';

interface Events {
  changed: [];
  samples: [device: LinkedDevice, frame: SampleFrame];
  gone: [device: LinkedDevice];
  /** A device has said hello again and its stream begins anew. */
  back: [device: LinkedDevice];
  /** What a device sends cannot be believed any more. */
  doubt: [device: LinkedDevice, sentence: string];
  remark: [device: LinkedDevice, sentence: string];
  scene: [code: string, values: Scene['values']];
}

/** How a device that said hello is met. */
export type Arrival =
  | { kind: 'welcome'; device: LinkedDevice }
  | { kind: 'code-in-use' }
  /** It has the code of a device that was let in, but not its key. */
  | { kind: 'wrong-key' };

/** So many devices are enough for any class; more are a fault or an attack. */
const mostDevices = 500;

/** All devices on the link, and what the teacher has set for them. */
export class DeviceRegistry extends EventEmitter<Events> {
  private readonly devices = new Map<string, LinkedDevice>();
  /** Codes whose settings are being read. */
  private readonly arriving = new Set<string>();
  private handles = 0;
  private stagesWatched = false;
  /** Says why a device must not be changed right now, or null. */
  busy: (code: string) => string | null = () => null;
  /** The rate at which a run is recording a device, or null. */
  rateInRun: (code: string) => number | null = () => null;

  list(): Device[] {
    return [...this.devices.values()].map((device) => ({
      code: device.code,
      model: device.hello.device.model,
      handle: device.handle,
      connected: device.settings.connected,
      present: device.present,
      waiting: device.waiting,
      rate: device.rate,
      rates: device.hello.rates,
      reversed: device.settings.reversed,
      channels: device.hello.channels,
      zeros: device.settings.zeros,
      stage: device.hello.stage ?? null,
    }));
  }

  all(): LinkedDevice[] {
    return [...this.devices.values()];
  }

  isConnected(code: string): boolean {
    return this.devices.get(code)?.settings.connected === true;
  }

  /** Devices that are connected by the teacher and on the link, in the order of their codes. */
  ready(): LinkedDevice[] {
    return this.all()
      .filter((device) => device.present && !device.waiting && device.settings.connected)
      .sort((a, b) => (a.code < b.code ? -1 : 1));
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

  /**
   * A device says hello. From this machine it is welcome; from another one it waits until the teacher has let it in once, and
   * then shows the key that it was given.
   * @throws Failure where there are too many devices
   */
  async arrive(hello: Hello, send: NonNullable<LinkedDevice['send']>, isLocal: boolean): Promise<Arrival> {
    const { code } = hello.device;
    // Held while the settings are read, so that of two devices with one code at the same moment one gets in.
    if (this.arriving.has(code) || this.devices.get(code)?.present === true) return { kind: 'code-in-use' };
    if (!this.devices.has(code) && this.devices.size >= mostDevices)
      throw new Failure('too-many-requests', `There are ${mostDevices} devices on the link already.`);
    this.arriving.add(code);
    try {
      const known = this.devices.get(code);
      const settings = known?.settings ?? (await storedSettings(code));
      const hasKey =
        settings.keyHash !== null && hello.key !== undefined && isKey(hello.key, settings.keyHash);
      if (!isLocal && settings.keyHash !== null && !hasKey) return { kind: 'wrong-key' };
      const device = known ?? new LinkedDevice(++this.handles, hello, settings);
      device.hello = hello;
      device.send = send;
      device.waiting = !isLocal && !hasKey;
      this.devices.set(code, device);
      if (device.waiting) send({ type: 'waiting' });
      else this.welcome(device);
      this.emit('changed');
      return { kind: 'welcome', device };
    } finally {
      this.arriving.delete(code);
    }
  }

  private welcome(device: LinkedDevice): void {
    device.send?.({ type: 'welcome', version: device.hello.version });
    device.send?.({ type: 'watched', watched: this.stagesWatched });
    if (!device.settings.connected) return;
    const rate = this.rateInRun(device.code);
    const { lowest, highest } = device.hello.rates;
    device.restart(rate !== null && rate >= lowest && rate <= highest ? rate : undefined);
    this.emit('back', device);
  }

  /** Lets a device on another machine in; it gets a key that it keeps. @throws Failure */
  async admit(code: string): Promise<void> {
    const device = this.find(code);
    if (!device.waiting) return;
    const key = randomBytes(24).toString('base64url');
    device.settings = { ...device.settings, keyHash: hashOf(key) };
    await this.store(device);
    device.waiting = false;
    device.send?.({ type: 'admitted', key });
    this.welcome(device);
    this.emit('changed');
  }

  leave(device: LinkedDevice): void {
    device.send = null;
    device.stream = null;
    device.ring.clear();
    this.emit('gone', device);
    if (device.waiting) this.devices.delete(device.code);
    this.emit('changed');
  }

  /** Takes a frame. @returns whether the device may go on */
  samples(device: LinkedDevice, frame: SampleFrame): boolean {
    const verdict = device.accept(frame, performance.now());
    switch (verdict.kind) {
      case 'passed over':
        return true;
      case 'taken':
        this.emit('samples', device, frame);
        return true;
      case 'impossible': {
        const place =
          frame.times === null ? `with the number ${verdict.index}` : `for the time ${verdict.seconds} s`;
        this.emit(
          'remark',
          device,
          `${device.code} sent a reading ${place}, which it cannot have taken yet; it was left out.`,
        );
        return false;
      }
      case 'wrong-pace': {
        const asked = device.stream?.rate ?? device.rate;
        const found =
          frame.times === null
            ? `sends about ${Number((verdict.pace * asked).toPrecision(2))} readings a second where ${asked} were set`
            : `has a clock that runs ${Number(verdict.pace.toPrecision(2))} times as fast as this computer's`;
        this.emit(
          'doubt',
          device,
          `${device.code} ${found}; its part ends here, since its times cannot be trusted.`,
        );
        device.restart();
        return false;
      }
    }
  }

  /** @throws Failure for an impossible rate, an absent device or one that is recording */
  async change(code: string, patch: DevicePatch): Promise<void> {
    const device = this.find(code);
    const reason = this.busy(code);
    if (reason !== null) throw new Failure('already-recording', reason);
    if (device.waiting)
      throw new Failure(
        'device-absent',
        `${code} is on another machine and not let in yet. Let it in first.`,
      );
    const { lowest, highest } = device.hello.rates;
    if (patch.rate !== undefined && !(patch.rate >= lowest && patch.rate <= highest))
      throw new Failure(
        'impossible-rate',
        `${device.code} cannot take ${patch.rate} readings a second. Choose a rate from ${lowest} to ${highest} Hz.`,
      );
    const before = device.settings;
    device.settings = { ...device.settings, ...patch };
    try {
      await this.store(device);
    } catch (error) {
      device.settings = before;
      throw error;
    }
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

const hashOf = (key: string) => createHash('sha256').update(key).digest('hex');

const isKey = (key: string, hash: string) => timingSafeEqual(Buffer.from(hashOf(key)), Buffer.from(hash));

async function storedSettings(code: string): Promise<Settings> {
  const row = await DeviceSettingModel.query().findById(code);
  return row ?? { connected: false, rate: null, reversed: false, zeros: {}, keyHash: null };
}
