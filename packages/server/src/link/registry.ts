import {
  type Calibration,
  type ControlAction,
  type Device,
  type DeviceState,
  type Hello,
  type KeptMessage,
  type SampleFrame,
  type Scene,
  type Settable,
  type SetupPatch,
  type StillReading,
  describeDevice,
} from '@heuristor/contracts';
import { randomBytes } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { performance } from 'node:perf_hooks';
import { Failure } from '../failure';
import { DeviceSettingModel } from '../models/deviceSetting';
import { freeSensor, freeSensorsOf, keepSetup, takeSensor } from '../services/sensorUse';
import { LinkedDevice, type LinkedStream, canRun } from './device';
import { checkOutput } from './outputs';
import { placeFor } from './places';
import { presentDevice } from './present';
import { hashOf, isKey, storedSettings, withinBounds } from './keptSettings';
import { changedSetup } from './setupChanges';
import { stillReadings, zerosOf } from './stillReadings';

interface Events {
  changed: [];
  /** Readings as they were sent, and as runs take them. */
  samples: [stream: LinkedStream, sent: SampleFrame, taken: SampleFrame];
  gone: [device: LinkedDevice];
  /** A device has said hello again and its streams begin anew. */
  back: [device: LinkedDevice];
  /** What a device sends cannot be believed any more. */
  doubt: [device: LinkedDevice, sentence: string];
  remark: [device: LinkedDevice, sentence: string];
  scene: [device: LinkedDevice, values: Scene['values']];
  /** What a device says that it keeps, and readings of it that were asked for. */
  kept: [device: LinkedDevice, message: KeptMessage];
  keptFrame: [device: LinkedDevice, frame: SampleFrame];
}

/** How a device that said hello is met. */
export type Arrival =
  | { kind: 'welcome'; device: LinkedDevice }
  | { kind: 'code-in-use' }
  /** There is no place for one more. */
  | { kind: 'full' }
  /** It has the code of a device that was let in, but not its key. */
  | { kind: 'wrong-key' };

const stateMilliseconds = 200;

/** All devices of a school on the link, and what its teachers have set for them. */
export class DeviceRegistry extends EventEmitter<Events> {
  constructor(readonly school: string) {
    super();
  }

  private readonly devices = new Map<string, LinkedDevice>();
  /** Codes whose settings are being read. */
  private readonly arriving = new Set<string>();
  private handles = 0;
  private stateTimer: NodeJS.Timeout | null = null;
  private stagesWatched: ReadonlySet<string> = new Set();
  /** Says why a device must not be changed right now, or null. */
  busy: (code: string) => string | null = () => null;
  /** The rate at which a run is recording a stream, or null. */
  rateInRun: (stream: LinkedStream) => number | null = () => null;

  list(): Device[] {
    return this.all().map(presentDevice);
  }

  all(): LinkedDevice[] {
    return [...this.devices.values()];
  }

  isUsed(code: string, investigation: string): boolean {
    return this.devices.get(code)?.use?.investigation === investigation;
  }

  /** Devices on the link that an investigation uses, in the order of their codes. */
  ready(investigation: string): LinkedDevice[] {
    return this.all()
      .filter((device) => device.present && !device.waiting && this.isUsed(device.code, investigation))
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
   * A device says hello. One that came with the program is welcome; another one waits until the teacher has let it in once, and then
   * shows the key that it was given. A code belongs to who proves it: one that only waits under it makes room.
   * @param isOwn whether it came with the program
   * @param turnOut ends the connection of the device with a reason
   */
  async arrive(
    hello: Hello,
    send: NonNullable<LinkedDevice['send']>,
    isOwn: boolean,
    turnOut: NonNullable<LinkedDevice['turnOut']> = () => undefined,
  ): Promise<Arrival> {
    const { code } = hello.device;
    const holder = this.devices.get(code);
    const isHeldByStranger = holder?.present === true && holder.waiting;
    // Held while the settings are read, so that of two devices with one code at the same moment one gets in.
    if (this.arriving.has(code) || (holder?.present === true && !isHeldByStranger))
      return { kind: 'code-in-use' };
    this.arriving.add(code);
    try {
      const stored = isHeldByStranger
        ? await storedSettings(this.school, code)
        : (holder ?? (await storedSettings(this.school, code)));
      const hasKey = stored.keyHash !== null && hello.key !== undefined && isKey(hello.key, stored.keyHash);
      if (!isOwn && stored.keyHash !== null && !hasKey) return { kind: 'wrong-key' };
      const isProven = isOwn || hasKey;
      // Also while the one that has proven it is away: its plug may have been pulled in the middle of a run.
      if (holder !== undefined && !isProven) return { kind: 'code-in-use' };
      if (isHeldByStranger) {
        this.turnOut(holder, 'the device to which this code belongs has come');
      }
      const known = this.devices.get(code);
      if (known === undefined && !this.makeRoom(isProven)) return { kind: 'full' };
      const description = describeDevice(hello);
      const device =
        known ?? new LinkedDevice(description, () => ++this.handles, stored.calibration, stored.keyHash);
      if (known === undefined) device.use = stored.use;
      else device.describe(description);
      device.send = send;
      device.turnOut = turnOut;
      device.waiting = !isProven;
      device.waitsSince = performance.now();
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
    device.send?.({ type: 'welcome', version: device.description.version });
    if (this.isWatched(device)) device.send?.({ type: 'watched', watched: true });
    device.sendNumbers();
    if (device.use === null) return;
    const now = performance.now();
    for (const stream of device.streams) {
      const rate = this.rateInRun(stream);
      if (rate !== null && canRun(stream.description, rate)) device.start(stream, now, rate);
      else if (stream.isOn) device.start(stream, now);
    }
    this.emit('back', device);
  }

  /** Lets a device on another machine in; it gets a key that it keeps. @throws Failure */
  async admit(code: string): Promise<void> {
    const device = this.find(code);
    if (!device.waiting) return;
    const key = randomBytes(24).toString('base64url');
    device.keyHash = hashOf(key);
    await this.store(device);
    device.waiting = false;
    device.send?.({ type: 'admitted', key });
    this.welcome(device);
    this.emit('changed');
  }

  leave(device: LinkedDevice): void {
    device.send = null;
    device.turnOut = null;
    for (const stream of device.streams) stream.end();
    this.emit('gone', device);
    if (device.waiting && this.devices.get(device.code) === device) this.devices.delete(device.code);
    this.emit('changed');
  }

  /** Ends the connection of a device that waits, and forgets it. */
  private turnOut(device: LinkedDevice, why: string): void {
    this.devices.delete(device.code);
    device.turnOut?.('code-in-use', why);
    device.send = null;
  }

  /** @returns whether there is a place for one more */
  private makeRoom(isProven: boolean): boolean {
    const { isFree, leaves } = placeFor(this.all(), isProven, performance.now());
    if (leaves?.waiting === true) this.turnOut(leaves, 'others wait too; say hello again');
    else if (leaves !== null) this.devices.delete(leaves.code);
    return isFree;
  }

  /** A device says how it is. */
  state(
    device: LinkedDevice,
    { battery, signal, remark }: Partial<DeviceState>,
    outputs: Record<string, number>,
  ): void {
    const { description } = device;
    device.description = {
      ...description,
      state: {
        battery: battery ?? description.state.battery,
        signal: signal ?? description.state.signal,
        remark: remark ?? description.state.remark,
      },
      outputs: description.outputs.map((output) => ({
        ...output,
        value: outputs[output.key] ?? output.value,
      })),
    };
    // However often devices say it, screens hear it a few times a second.
    this.stateTimer ??= setTimeout(() => {
      this.stateTimer = null;
      this.emit('changed');
    }, stateMilliseconds).unref();
  }

  /** Takes a frame. @returns whether the device may go on */
  samples(stream: LinkedStream, frame: SampleFrame): boolean {
    const { device } = stream;
    const verdict = stream.accept(frame, performance.now());
    switch (verdict.kind) {
      case 'passed over':
        return true;
      case 'taken':
        this.emit('samples', stream, frame, verdict.frame);
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
        const asked = stream.sending?.rate ?? stream.rate;
        const found =
          frame.times === null
            ? `sends about ${Number((verdict.pace * asked).toPrecision(2))} readings a second where ${asked} were set`
            : `has a clock that runs ${Number(verdict.pace.toPrecision(2))} times as fast as this computer's`;
        this.emit(
          'doubt',
          device,
          `${device.code} ${found}; its part ends here, since its times cannot be trusted.`,
        );
        device.start(stream, performance.now());
        return false;
      }
    }
  }

  /**
   * An investigation takes a device for its own, set up as it had it last.
   * @throws Failure where a run is being recorded with it, or where it waits to be let in
   */
  async take(investigation: { id: string; name: string }, code: string): Promise<void> {
    const device = this.find(code);
    if (device.use?.investigation === investigation.id) return;
    this.refuseBusy(device);
    const setup = await takeSensor(this.school, investigation.id, code);
    device.use = { investigation: investigation.id, name: investigation.name, setup };
    device.settle(performance.now());
    this.emit('changed');
  }

  /** Sets a device free. @throws Failure */
  async free(investigation: string, code: string): Promise<void> {
    const device = this.find(code);
    if (device.use?.investigation !== investigation) return;
    this.refuseBusy(device);
    await freeSensor(this.school, code);
    device.use = null;
    device.settle(performance.now());
    this.emit('changed');
  }

  /** Sets all devices of an investigation free, since it is removed. */
  async freeAll(investigation: string): Promise<void> {
    await freeSensorsOf(investigation);
    for (const device of this.devices.values())
      if (device.use?.investigation === investigation) {
        device.use = null;
        device.settle(performance.now());
      }
    this.emit('changed');
  }

  /** The investigation has another name; whoever looks for its sensors reads it. */
  renamed(investigation: string, name: string): void {
    for (const device of this.devices.values())
      if (device.use?.investigation === investigation) device.use = { ...device.use, name };
    this.emit('changed');
  }

  /** Changes how an investigation uses a device. @throws Failure for what the device cannot do, or while it is recording */
  async setUp(investigation: string, code: string, patch: SetupPatch): Promise<void> {
    const device = this.find(code);
    const { use } = device;
    if (use?.investigation !== investigation)
      throw new Failure(
        'device-absent',
        use === null
          ? `${code} is not connected to this investigation. Connect it first.`
          : `${code} is in use in “${use.name}”. Take it over first.`,
      );
    this.refuseBusy(device);
    const setup = changedSetup(device, patch);
    device.use = { ...use, setup };
    try {
      await keepSetup(investigation, code, setup);
    } catch (error) {
      device.use = use;
      throw error;
    }
    device.settle(performance.now());
    this.emit('changed');
  }

  /** Averages a second of readings into new zeros. @throws Failure where the target moves or nothing comes */
  async zero(code: string, channels?: readonly string[]): Promise<void> {
    const device = this.find(code);
    this.refuseBusy(device);
    const zeros = zerosOf(device, await stillReadings(this, device, channels));
    await this.calibrate(code, {
      ...device.calibration,
      zeros: { ...device.calibration.zeros, ...zeros },
    });
  }

  /** A second of readings of one channel, before any calibration. @throws Failure */
  async still(code: string, channel: string): Promise<StillReading> {
    const device = this.find(code);
    const readings = await stillReadings(this, device, [channel]);
    const zeros = zerosOf(device, readings);
    const [{ mean, spread, count }] = readings;
    return { mean, spread, count, uncertainty: zeros[channel].uncertainty ?? 0 };
  }

  /** Puts another calibration in place of the present one. @throws Failure while it is recording */
  async calibrate(code: string, calibration: Calibration): Promise<void> {
    const device = this.find(code);
    this.refuseBusy(device);
    const before = device.calibration;
    device.calibration = withinBounds(device, calibration);
    try {
      await this.store(device);
    } catch (error) {
      device.calibration = before;
      throw error;
    }
    device.sendNumbers();
    this.emit('changed');
  }

  /** Sets one of the outputs of a device. @throws Failure for what it has not, or cannot be set to */
  setOutput(code: string, key: string, value: number): void {
    const device = this.checkOutput(code, key, value);
    device.send?.({ type: 'output', key, value });
    this.state(device, {}, { [key]: value });
  }

  /** @returns the device whose output can be set to a value @throws Failure for what it has not, or cannot be set to */
  checkOutput(code: string, key: string, value: number): LinkedDevice {
    const device = this.find(code);
    checkOutput(device, key, value);
    return device;
  }

  /** What can be set of how a stand-in's sensors err; nothing of a real device. @throws Failure */
  sensorOf(code: string): Settable[] {
    return this.find(code).description.stage?.sensor ?? [];
  }

  flash(code: string): void {
    this.find(code).send?.({ type: 'flash' });
  }

  control(code: string, control: ControlAction): void {
    this.devices.get(code)?.send?.({ type: 'control', control });
  }

  /** Apparatus that somebody looks at. */
  watchStages(watched: ReadonlySet<string>): void {
    const before = new Map(this.all().map((device) => [device, this.isWatched(device)]));
    this.stagesWatched = watched;
    for (const [device, was] of before) {
      const is = this.isWatched(device);
      if (is !== was) device.send?.({ type: 'watched', watched: is });
    }
  }

  private isWatched({ description }: LinkedDevice): boolean {
    return description.stage !== null && this.stagesWatched.has(description.stage.apparatus);
  }

  /** @throws Failure while a run is recording it, or while it waits to be let in */
  private refuseBusy(device: LinkedDevice): void {
    const reason = this.busy(device.code);
    if (reason !== null) throw new Failure('already-recording', reason);
    if (device.waiting)
      throw new Failure(
        'device-absent',
        `${device.code} is on another machine and not let in yet. Let it in first.`,
      );
  }

  private async store({ code, calibration, keyHash }: LinkedDevice): Promise<void> {
    await DeviceSettingModel.query()
      .insert({ schoolId: this.school, code, ...calibration, keyHash })
      .onConflict(['schoolId', 'code'])
      .merge();
  }
}
