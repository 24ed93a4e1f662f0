import { type Gap, type Run, type SampleFrame, encodeFrame, frameKinds } from '@heuristor/contracts';
import { EventEmitter } from 'node:events';
import { performance } from 'node:perf_hooks';
import { type Logger } from 'pino';
import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';
import { type DeviceRegistry } from '../link/registry';
import { findInvestigation } from '../services/investigations';
import { addRun, changeRun, endRun } from '../services/runs';
import { joinBlocks } from '../services/samples';
import { BlockWriter } from './blockWriter';

interface Events {
  run: [run: Run];
  samples: [investigationId: string, frame: Uint8Array];
  storage: [waiting: boolean];
}

/** One channel of a run that is being recorded. */
interface Track {
  channelId: number;
  key: string;
  channel: number;
  device: LinkedDevice;
  rate: number;
  /** Time of reading 0 after the origin of the run, in seconds. */
  start: number;
  next: number;
  /** Reading at which the run is complete; Infinity without a length. */
  limit: number;
}

interface Recording {
  run: Run;
  /** Origin of the run's time, by the server's clock in ms. */
  origin: number;
  lengthSeconds: number | null;
  tracks: Track[];
  gaps: Gap[];
  deadline: NodeJS.Timeout | null;
  ending: Promise<Run> | null;
}

/** How long after its length a run waits for a device that does not send. */
const patienceSeconds = 1.5;
/** A gap longer than this is no longer filled with missing readings but ends the channel. */
const longestGapReadings = 10_000_000;

/** Records runs: idle until started, then recording until stopped, complete, or interrupted. One run an investigation. */
export class Recorder extends EventEmitter<Events> {
  private readonly recordings = new Map<string, Recording>();
  private readonly starting = new Set<string>();
  readonly writer: BlockWriter;

  constructor(
    private readonly registry: DeviceRegistry,
    private readonly log: Logger,
  ) {
    super();
    this.writer = new BlockWriter(log, (waiting) => this.emit('storage', waiting));
    registry.on('samples', (device, frame) => this.take(device, frame));
    registry.busy = (code) => {
      for (const { run, tracks } of this.recordings.values())
        if (tracks.some((track) => track.device.code === code))
          return `${code} is recording ${run.name}. Stop the run before changing the sensor.`;
      return null;
    };
  }

  /** Starts a run from all devices that are connected. @throws Failure */
  async start(investigationId: string): Promise<Run> {
    if (this.recordings.has(investigationId) || this.starting.has(investigationId))
      throw new Failure('already-recording', 'A run is being recorded already. Stop it first.');
    this.starting.add(investigationId);
    // Readings that come while the run is being entered into the database belong to it already.
    const meanwhile: [device: LinkedDevice, frame: SampleFrame][] = [];
    const listen = (device: LinkedDevice, frame: SampleFrame) => void meanwhile.push([device, frame]);
    try {
      const investigation = await findInvestigation(investigationId);
      const devices = this.registry
        .ready()
        .filter(({ stream }) => stream !== null && stream.epoch < Infinity);
      if (devices.length === 0)
        throw new Failure('nothing-connected', 'No sensor is sending. Connect one and wait for its reading.');
      this.registry.on('samples', listen);
      // Time zero is the next reading of the first device, so that runs begin at 0 and not at a fraction of an interval.
      const now = performance.now();
      const firstReading = ({ stream }: LinkedDevice, from: number) => {
        if (stream === null) throw new Failure('device-absent', 'A sensor went away. Try again.');
        return Math.max(Math.ceil(((from - stream.epoch) * stream.rate) / 1000), 0);
      };
      const timeOf = ({ stream }: LinkedDevice, index: number) =>
        stream === null ? now : stream.epoch + (index * 1000) / stream.rate;
      const origin = timeOf(devices[0], firstReading(devices[0], now));
      const { lengthSeconds } = investigation.plan;
      const used = new Set<string>();
      const plans = devices.flatMap((device, place) => {
        const index = place === 0 ? firstReading(device, now) : firstReading(device, origin);
        const start = place === 0 ? 0 : (timeOf(device, index) - origin) / 1000;
        return device.hello.channels.map((channel, c) => {
          let key = channel.symbol;
          for (let n = 2; used.has(key); n++) key = `${channel.symbol}${n}`;
          used.add(key);
          return { device, channel, c, key, start, rate: device.rate };
        });
      });
      const run = await addRun({
        investigationId,
        origin: 'recorded',
        state: 'recording',
        plan: investigation.plan,
        channels: plans.map(({ device, channel, c, key, start, rate }) => ({
          key,
          symbol: key,
          quantity: channel.quantity,
          unit: channel.unit,
          timeUnit: 's',
          interval: 1 / rate,
          start,
          ...device.calibratedRange(c),
          deviceCode: device.code,
          zero: device.zeroOf(c),
          reversed: device.settings.reversed,
        })),
      });
      const tracks = plans.map(({ device, c, key, start, rate }, i): Track => {
        const channelId = run.channels[i].id;
        this.writer.open(channelId);
        const limit =
          lengthSeconds === null
            ? Infinity
            : Math.max(Math.floor((lengthSeconds - start) * rate + 1e-6) + 1, 1);
        return { channelId, key, channel: c, device, rate, start, next: 0, limit };
      });
      const deadline =
        lengthSeconds === null
          ? null
          : setTimeout(
              () => void this.stop(investigationId).catch((error: unknown) => this.log.error(error)),
              origin - performance.now() + (lengthSeconds + patienceSeconds) * 1000,
            );
      this.recordings.set(investigationId, {
        run,
        origin,
        lengthSeconds,
        tracks,
        gaps: [],
        deadline,
        ending: null,
      });
      this.emit('run', run);
      for (const [device, frame] of meanwhile) this.take(device, frame);
      return run;
    } finally {
      this.registry.off('samples', listen);
      this.starting.delete(investigationId);
    }
  }

  /** Ends the run that is being recorded and stores its rest. @throws Failure */
  async stop(investigationId: string): Promise<Run> {
    const recording = this.recordings.get(investigationId);
    if (recording === undefined) throw new Failure('not-recording', 'No run is being recorded.');
    recording.ending ??= this.end(investigationId, recording);
    return recording.ending;
  }

  /** Stops everything in good order, for the end of the server. */
  async close(): Promise<void> {
    await Promise.all([...this.recordings.keys()].map((id) => this.stop(id)));
    this.writer.close();
  }

  private async end(investigationId: string, recording: Recording): Promise<Run> {
    if (recording.deadline !== null) clearTimeout(recording.deadline);
    const elapsed = Math.min(
      (performance.now() - recording.origin) / 1000,
      recording.lengthSeconds ?? Number.POSITIVE_INFINITY,
    );
    // A device that is away at the end leaves a gap up to the end.
    for (const track of recording.tracks) {
      const reached = track.start + track.next / track.rate;
      if (!track.device.present && elapsed - reached > 2 / track.rate)
        recording.gaps.push({ channel: track.key, from: reached, to: elapsed });
    }
    const channelIds = recording.tracks.map(({ channelId }) => channelId);
    recording.tracks = [];
    await this.writer.finish(channelIds);
    if (recording.gaps.length > 0) await changeRun(recording.run.id, { gaps: recording.gaps });
    const run = await endRun(recording.run.id, 'ended');
    this.recordings.delete(investigationId);
    this.emit('run', run);
    for (const id of channelIds) await joinBlocks(id);
    return run;
  }

  private take(device: LinkedDevice, frame: SampleFrame): void {
    for (const [investigationId, recording] of this.recordings) {
      let taken = false;
      for (const track of recording.tracks) {
        if (track.device !== device) continue;
        taken = this.takeTrack(investigationId, recording, track, frame) || taken;
      }
      if (taken && recording.tracks.every(({ next, limit }) => next >= limit))
        this.stop(investigationId).catch((error: unknown) => this.log.error(error));
    }
  }

  private takeTrack(
    investigationId: string,
    recording: Recording,
    track: Track,
    frame: SampleFrame,
  ): boolean {
    const { stream } = track.device;
    if (stream === null) return false;
    const { channels } = frame;
    const count = frame.values.length / channels;
    // Where the frame's first sample falls on the grid of this track.
    const moment =
      (stream.epoch + (frame.firstIndex * 1000) / stream.rate - recording.origin) / 1000 - track.start;
    let index = this.follows(track, frame) ? track.next : Math.round(moment * track.rate);
    const out: number[] = [];
    const firstIndex = track.next;
    for (let i = 0; i < count; i++, index++) {
      if (index < track.next || index >= track.limit) continue;
      if (index - track.next > longestGapReadings) return false;
      if (index > track.next && track.next > 0) this.markGap(recording, track, index);
      for (; track.next < index; track.next++) out.push(NaN);
      out.push(track.device.calibrated(frame.values[i * channels + track.channel], track.channel));
      track.next++;
    }
    this.followed.set(track, { stream: stream.number, next: frame.firstIndex + count });
    if (out.length === 0) return false;
    for (const value of out) this.writer.append(track.channelId, value);
    this.emit(
      'samples',
      investigationId,
      encodeFrame({
        kind: frameKinds.run,
        subject: track.channelId,
        firstIndex,
        channels: 1,
        values: Float64Array.from(out),
      }),
    );
    return true;
  }

  private readonly followed = new WeakMap<Track, { stream: number; next: number }>();

  /** Whether a frame goes on right where the last one of this track ended, so that no clock needs asking. */
  private follows(track: Track, frame: SampleFrame): boolean {
    const last = this.followed.get(track);
    return last !== undefined && last.stream === frame.subject && last.next === frame.firstIndex;
  }

  private markGap(recording: Recording, track: Track, index: number): void {
    const gap: Gap = {
      channel: track.key,
      from: track.start + track.next / track.rate,
      to: track.start + index / track.rate,
    };
    recording.gaps.push(gap);
    changeRun(recording.run.id, { gaps: recording.gaps })
      .then((run) => this.emit('run', run))
      .catch((error: unknown) => this.log.error(error));
  }
}
