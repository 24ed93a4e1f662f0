import { type Clock, type Device, type DeviceState, type Hello, describeDevice } from '@heuristor/contracts';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { LinkedDevice, canRun } from '../link/device';
import { keepSettings, storedSettings } from '../services/deviceSettings';
import { storedUse } from '../services/sensorUse';
import { type InRuns } from './inRuns';
import { hashOfKey, isKey, newKey } from './keys';
import { placeFor } from './places';
import { presentDevice } from './present';

/** How a device that said hello is met. */
export type Arrival =
  | { kind: 'welcome'; device: LinkedDevice }
  | { kind: 'code-in-use' }
  /** There is no place for one more. */
  | { kind: 'full' }
  /** It has the code of a device that was let in, but not its key. */
  | { kind: 'wrong-key' };

const stateMilliseconds = 200;

interface Parts {
  school: string;
  bus: Bus;
  clock: Clock;
  inRuns: InRuns;
}

/** Which devices of a school are on the link: they come, wait to be let in, say how they are, and leave. */
export class Presence {
  readonly school: string;
  private readonly bus: Bus;
  private readonly clock: Clock;
  private readonly inRuns: InRuns;
  private readonly devices = new Map<string, LinkedDevice>();
  /** Codes whose settings are being read. */
  private readonly arriving = new Set<string>();
  private handles = 0;
  private stateTimer: NodeJS.Timeout | null = null;

  constructor({ school, bus, clock, inRuns }: Parts) {
    this.school = school;
    this.bus = bus;
    this.clock = clock;
    this.inRuns = inRuns;
  }

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
    const description = describeDevice(hello);
    // Its former connection may hang for a while after its network broke; that it goes on with what it was told to send shows who it is.
    const isBackSooner = holder?.present === true && !holder.waiting && holder.sendsAs(description.goesOn);
    // Held while the settings are read, so that of two devices with one code at the same moment one gets in.
    if (this.arriving.has(code) || (holder?.present === true && !isHeldByStranger && !isBackSooner))
      return { kind: 'code-in-use' };
    this.arriving.add(code);
    try {
      const stored = holder !== undefined && !isHeldByStranger ? holder : await this.known(code);
      const hasKey = stored.keyHash !== null && hello.key !== undefined && isKey(hello.key, stored.keyHash);
      if (!isOwn && stored.keyHash !== null && !hasKey) return { kind: 'wrong-key' };
      const isProven = isOwn || hasKey;
      // Also while the one that has proven it is away: its plug may have been pulled in the middle of a run.
      if (holder !== undefined && !isProven) return { kind: 'code-in-use' };
      if (isHeldByStranger) this.turnOut(holder, 'the device to which this code belongs has come');
      if (isBackSooner) this.leaveFormer(holder);
      const known = this.devices.get(code);
      if (known === undefined && !this.makeRoom(isProven)) return { kind: 'full' };
      const device =
        known ??
        new LinkedDevice(description, () => ++this.handles, stored.calibration, stored.keyHash, this.clock);
      if (known === undefined) device.use = stored.use;
      else device.describe(description);
      device.send = send;
      device.turnOut = turnOut;
      device.waiting = !isProven;
      device.waitsSince = this.clock.now();
      this.devices.set(code, device);
      if (device.waiting) send({ type: 'waiting' });
      else this.welcome(device);
      this.bus.emit('devices');
      return { kind: 'welcome', device };
    } finally {
      this.arriving.delete(code);
    }
  }

  /** Lets a device on another machine in; it gets a key that it keeps. @throws Failure */
  async admit(code: string): Promise<void> {
    const device = this.find(code);
    if (!device.waiting) return;
    const key = newKey();
    device.keyHash = hashOfKey(key);
    await keepSettings(this.school, device);
    device.waiting = false;
    device.send?.({ type: 'admitted', key });
    this.welcome(device);
    this.bus.emit('devices');
  }

  /** @param send of the connection that ended; nothing where the device has come on another one since */
  leave(device: LinkedDevice, send = device.send): void {
    if (device.send !== send) return;
    device.breakOff();
    this.bus.emit('gone', device);
    if (device.waiting && this.devices.get(device.code) === device) this.devices.delete(device.code);
    this.bus.emit('devices');
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
      this.bus.emit('devices');
    }, stateMilliseconds).unref();
  }

  flash(code: string): void {
    this.find(code).send?.({ type: 'flash' });
  }

  private async known(code: string) {
    const settings = await storedSettings(this.school, code);
    return { ...settings, use: await storedUse(this.school, code) };
  }

  private welcome(device: LinkedDevice): void {
    device.send?.({ type: 'welcome', version: device.description.version });
    this.bus.emit('welcomed', device);
    device.sendNumbers();
    if (device.use !== null) {
      const now = this.clock.now();
      for (const stream of device.streams) {
        const rate = this.inRuns.rateOf(stream);
        if (rate !== null && canRun(stream.description, rate)) device.goOnOrStart(stream, now, rate);
        else if (stream.isOn) device.goOnOrStart(stream, now, stream.rate);
      }
    }
    device.stopUnwanted();
    if (device.use !== null) this.bus.emit('back', device);
  }

  /** Ends the former connection of a device that is back on another one. */
  private leaveFormer(device: LinkedDevice): void {
    const { turnOut } = device;
    device.breakOff();
    this.bus.emit('gone', device);
    turnOut?.('replaced', 'it has come back on another connection');
  }

  /** Ends the connection of a device that waits, and forgets it. */
  private turnOut(device: LinkedDevice, why: string): void {
    this.devices.delete(device.code);
    device.turnOut?.('code-in-use', why);
    device.send = null;
  }

  /** @returns whether there is a place for one more */
  private makeRoom(isProven: boolean): boolean {
    const { isFree, leaves } = placeFor(this.all(), isProven, this.clock.now());
    if (leaves?.waiting === true) this.turnOut(leaves, 'others wait too; say hello again');
    else if (leaves !== null) this.devices.delete(leaves.code);
    return isFree;
  }
}
