import { type KeptMessage, type ToDevice, encodeFrame, frameKinds } from '@heuristor/contracts';
import { type StreamPlan } from './device';
import { LevelWatch, type WatchedReading } from './levelWatch';
import { type RigClock, type RunningStream } from './rigClock';
import { reachedBy } from './sensor';

type Prepare = Extract<ToDevice, { type: 'prepare' }>;
type Fetch = Extract<ToDevice, { type: 'fetch' }>;

/** What one stream of a run has taken. */
interface KeptStream {
  plan: StreamPlan;
  rate: number;
  running: RunningStream | null;
  /** What waits for the level at which the run begins, where it is one of this stream's. */
  watch: LevelWatch | null;
  channels: number;
  values: number[];
  times: number[] | null;
  /** Readings that a run of a set length has. */
  most: number;
}

interface KeptRun {
  id: number;
  state: KeptMessage['runs'][number]['state'];
  /** By the device's own clock. */
  begun: number | null;
  wanted: Prepare;
  streams: Map<string, KeptStream>;
}

interface Surroundings {
  clock: RigClock;
  /** The stream as the device has it now, with the ways in which its sensors err. */
  planOf(key: string): StreamPlan | undefined;
  random: () => number;
  /** Numbers that there is room for. */
  keeps: number;
  /** How much faster than it should its clock runs, as a share. */
  drift: number;
}

/** The memory of a device that records by itself: what it was prepared for, what it has taken, and its clock. */
export class AwayMemory {
  private runs: KeptRun[] = [];
  /** Its clock was set anew so long after the rig began. */
  private clockFrom = 0;
  /** Something has happened since it was last told. */
  private isNews = false;

  constructor(private readonly around: Surroundings) {}

  /** Whether it records, or waits to. */
  get isActive(): boolean {
    return this.runs.some(({ state }) => state === 'recording' || state === 'waiting');
  }

  get message(): KeptMessage {
    return {
      type: 'kept',
      clock: this.now,
      room: Math.max(this.around.keeps - this.numbers, 0),
      runs: this.runs.map(({ id, state, begun, streams }) => ({
        id,
        state,
        begun,
        counts: Object.fromEntries([...streams].map(([key, stream]) => [key, countOf(stream)])),
      })),
    };
  }

  /** Whether there is something to tell; asked once. */
  takeNews(): boolean {
    const { isNews } = this;
    this.isNews = false;
    return isNews;
  }

  prepare(wanted: Prepare): void {
    const { keeps, drift, planOf } = this.around;
    if (this.runs.some(({ id }) => id === wanted.id) || this.numbers >= keeps) return;
    const streams = new Map<string, KeptStream>();
    for (const { of, rate } of wanted.streams) {
      const plan = planOf(of);
      if (plan === undefined) continue;
      const isRegular = plan.sampling === 'regular';
      streams.set(of, {
        plan,
        rate: rate * (1 + drift),
        running: null,
        watch: watchOf(plan, wanted),
        channels: plan.channels.length,
        values: [],
        times: isRegular ? null : [],
        most: wanted.seconds === null || !isRegular ? Infinity : Math.floor(wanted.seconds * rate + 1e-9) + 1,
      });
    }
    const run: KeptRun = { id: wanted.id, state: 'waiting', begun: null, wanted, streams };
    this.runs.push(run);
    if (wanted.begin.kind !== 'button') this.start(run);
    if (wanted.begin.kind === 'at-once') this.begin(run, this.now);
    this.isNews = true;
  }

  /** Somebody presses its button. */
  button(): void {
    const run = this.runs.find(({ state }) => state === 'waiting');
    if (run === undefined) return;
    this.stop(run);
    this.start(run);
    this.begin(run, this.now);
  }

  end(id: number): void {
    const run = this.runs.find((candidate) => candidate.id === id);
    if (run === undefined || (run.state !== 'recording' && run.state !== 'waiting')) return;
    this.gather();
    if (run.state === 'recording' || run.state === 'waiting') this.finish(run, 'finished');
    this.isNews = true;
  }

  erase(id: number): void {
    for (const run of this.runs) if (run.id === id) this.stop(run);
    this.runs = this.runs.filter((run) => run.id !== id);
    this.isNews = true;
  }

  /** Its battery falls out and is put back: what it has taken stays, what it was recording ends, and its clock begins anew. */
  losePower(): void {
    for (const run of this.runs) {
      if (run.state === 'recording' || run.state === 'waiting') this.finish(run, 'stopped');
      run.begun = null;
    }
    this.clockFrom = this.around.clock.seconds;
    this.isNews = true;
  }

  /** Readings that were asked for, as one frame; null where it has none. */
  fetch({ id, of, from, count }: Fetch): Uint8Array | null {
    const stream = this.runs.find((run) => run.id === id)?.streams.get(of);
    if (stream === undefined) return null;
    const to = Math.min(from + count, countOf(stream));
    if (to <= from) return null;
    return encodeFrame({
      kind: frameKinds.kept,
      subject: id,
      firstIndex: from,
      channels: stream.channels,
      values: Float64Array.from(stream.values.slice(from * stream.channels, to * stream.channels)),
      times: stream.times === null ? null : Float64Array.from(stream.times.slice(from, to)),
    });
  }

  /** Takes what its sensors have read since it was asked last. */
  gather(): void {
    for (const run of this.runs) {
      if (run.state !== 'recording' && run.state !== 'waiting') continue;
      for (const stream of run.streams.values()) this.take(run, stream);
      this.endWhereDue(run);
    }
  }

  private take(run: KeptRun, stream: KeptStream): void {
    const taken = stream.running?.take() ?? null;
    if (taken === null) return;
    const { values, times } = taken;
    const { channels } = stream;
    const count = values.length / channels;
    for (let i = 0; i < count; i++) {
      const reading = { index: taken.firstIndex + i, own: values.subarray(i * channels, (i + 1) * channels) };
      const readings = run.state === 'waiting' ? this.crossing(run, stream, reading) : [reading];
      for (const { own } of readings) {
        if (countOf(stream) >= stream.most) return;
        if (times !== null) {
          // The first event says how things stand at the beginning, as on the link.
          const time = times[i] * (1 + this.around.drift);
          if (run.wanted.seconds !== null && time > run.wanted.seconds) return;
          stream.times?.push(time);
        }
        stream.values.push(...own);
      }
    }
  }

  /** The readings with which a run begins that waits for a level: those at which it was crossed, or none yet. */
  private crossing(run: KeptRun, stream: KeptStream, reading: WatchedReading): WatchedReading[] {
    const crossed = stream.watch?.sees(reading) ?? null;
    if (crossed === null) return [];
    run.begun = this.startedAt(run) + crossed[0].index / (stream.rate / (1 + this.around.drift));
    run.state = 'recording';
    this.isNews = true;
    return crossed;
  }

  private readonly starts = new Map<KeptRun, number>();

  private startedAt(run: KeptRun): number {
    return this.starts.get(run) ?? this.now;
  }

  private endWhereDue(run: KeptRun): void {
    const { seconds } = run.wanted;
    const streams = [...run.streams.values()];
    if (this.numbers >= this.around.keeps) this.finish(run, 'full');
    else if (run.state === 'recording' && seconds !== null) {
      const isOver = run.begun !== null && this.now - run.begun > seconds;
      if (isOver && streams.every((stream) => stream.most === Infinity || countOf(stream) >= stream.most))
        this.finish(run, 'finished');
    }
  }

  private start(run: KeptRun): void {
    this.starts.set(run, this.now);
    for (const [key, stream] of run.streams) {
      const ranges = run.wanted.streams.find(({ of }) => of === key)?.ranges ?? {};
      stream.running = this.around.clock.start(stream.plan, 0, stream.rate, ranges, this.around.random);
    }
  }

  private begin(run: KeptRun, at: number): void {
    run.state = 'recording';
    run.begun = at;
    this.isNews = true;
  }

  private finish(run: KeptRun, state: KeptRun['state']): void {
    this.stop(run);
    run.state = state;
    this.isNews = true;
  }

  private stop(run: KeptRun): void {
    for (const stream of run.streams.values()) {
      if (stream.running !== null) this.around.clock.running.delete(stream.running);
      stream.running = null;
    }
  }

  private get now(): number {
    return (this.around.clock.seconds - this.clockFrom) * (1 + this.around.drift);
  }

  private get numbers(): number {
    return this.runs.reduce(
      (sum, { streams }) => sum + [...streams.values()].reduce((own, { values }) => own + values.length, 0),
      0,
    );
  }
}

function watchOf({ channels }: StreamPlan, { begin }: Prepare): LevelWatch | null {
  if (begin.kind !== 'level') return null;
  const place = channels.findIndex(({ channel }) => channel.key === begin.channel);
  if (place < 0) return null;
  const plan = channels[place];
  const flaws = 'flaws' in plan ? plan.flaws : undefined;
  // A sensor that hears echoes reads its far limit where it hears none.
  const nothing = flaws?.lostShare === undefined ? null : reachedBy(plan.channel.ranges[0], flaws).high;
  return new LevelWatch(place, begin.direction, begin.value, nothing);
}

const countOf = ({ values, channels }: KeptStream) => values.length / channels;
