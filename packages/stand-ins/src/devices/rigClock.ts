import { type Apparatus } from '../apparatus/apparatus';
import { type StreamPlan } from './device';
import { SensorChannel } from './sensor';

const usualFinest = 0.001;
/** Edges are found to within this, in seconds. */
const edgeStep = 0.0001;
/** What stood still longer than this, because nobody looked, goes on from where it stood. */
const longestCatchUp = 1;

/** A stream that is running, and what it has gathered since it was sent last. */
export class RunningStream {
  /** Samples since the start. */
  sent = 0;
  values: number[] = [];
  times: number[] = [];
  private state: boolean | null = null;

  constructor(
    readonly number: number,
    readonly rate: number,
    readonly began: number,
    private readonly sensors: readonly SensorChannel[],
    private readonly edge: (() => boolean) | null,
  ) {}

  get isRegular(): boolean {
    return this.edge === null;
  }

  /** When it wants to look next, in seconds since the rig began. */
  get due(): number {
    const count = this.isRegular ? this.values.length / this.sensors.length : this.looks;
    return this.began + (this.sent + count) / this.rate;
  }
  private looks = 0;

  look(moment: number): void {
    if (this.edge === null) {
      for (const sensor of this.sensors) this.values.push(sensor.read(moment));
      return;
    }
    this.looks++;
    const state = this.edge();
    // How it stands at the beginning is no edge.
    if (this.state !== null && state !== this.state) {
      this.values.push(Number(state));
      this.times.push(moment - this.began);
    }
    this.state = state;
  }

  /** What was gathered, and nothing of it a second time. */
  take(): { firstIndex: number; values: Float64Array; times: Float64Array | null } | null {
    if (this.values.length === 0) return null;
    const taken = {
      firstIndex: this.sent,
      values: Float64Array.from(this.values),
      times: this.isRegular ? null : Float64Array.from(this.times),
    };
    if (this.isRegular) this.sent += this.values.length / this.sensors.length;
    else {
      // The index counts edges; the looks go on.
      this.looks += this.sent;
      this.sent += this.values.length;
      this.looks -= this.sent;
    }
    this.values = [];
    this.times = [];
    return taken;
  }
}

/** The time of an apparatus: it is moved on to every moment at which one of the devices in front of it looks, in their order. */
export class RigClock {
  private now = 0;
  readonly running = new Set<RunningStream>();

  constructor(readonly apparatus: Apparatus) {}

  start(
    plan: StreamPlan,
    number: number,
    rate: number,
    ranges: Record<string, string>,
    random: () => number,
  ): RunningStream {
    const sensors =
      plan.sampling === 'regular'
        ? plan.channels.map(({ channel, truth, flaws = {} }) => {
            const sensor = new SensorChannel(channel, truth, flaws, random);
            sensor.choose(ranges[channel.key]);
            return sensor;
          })
        : [];
    const stream = new RunningStream(
      number,
      plan.sampling === 'regular' ? rate : 1 / edgeStep,
      this.now,
      sensors,
      plan.sampling === 'events' ? plan.truth : null,
    );
    this.running.add(stream);
    return stream;
  }

  /** Moves on to a moment, in seconds; readings that fall due on the way are gathered by their streams. */
  advanceTo(moment: number): void {
    if (moment - this.now > longestCatchUp && this.running.size === 0) this.now = moment - longestCatchUp;
    for (;;) {
      let next: RunningStream | null = null;
      let due = moment;
      for (const stream of this.running)
        if (stream.due <= due) {
          due = stream.due;
          next = stream;
        }
      this.move(due);
      if (next === null) return;
      next.look(due);
    }
  }

  get seconds(): number {
    return this.now;
  }

  private move(moment: number): void {
    const { finest = usualFinest } = this.apparatus;
    while (this.now < moment) {
      const step = Math.min(finest, moment - this.now);
      this.apparatus.step(step);
      // The last step lands on the moment itself, whatever rounding says.
      this.now = step < finest ? moment : this.now + step;
    }
  }
}
