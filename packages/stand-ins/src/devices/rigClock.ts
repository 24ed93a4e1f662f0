import { type Apparatus } from '../apparatus/apparatus';
import { type EdgePlan, type StreamPlan } from './device';
import { SensorChannel } from './sensor';

const usualFinest = 0.001;
/** What switches is looked at so often, in seconds; the moment of an edge is found between two looks. */
const edgeStep = 0.0001;
/** What stood still longer than this, because nobody looked, goes on from where it stood. */
const longestCatchUp = 1;

/** A stream that is running, and what it has gathered since it was sent last. */
export interface RunningStream {
  readonly number: number;
  readonly channels: number;
  /** When it wants to look next, in seconds since the rig began. */
  readonly due: number;
  look(moment: number): void;
  /** What was gathered, and nothing of it a second time. */
  take(): Taken | null;
}

export interface Taken {
  firstIndex: number;
  values: Float64Array;
  times: Float64Array | null;
}

class SampledStream implements RunningStream {
  private sent = 0;
  private values: number[] = [];

  constructor(
    readonly number: number,
    private readonly rate: number,
    private readonly began: number,
    private readonly sensors: readonly SensorChannel[],
  ) {}

  get channels(): number {
    return this.sensors.length;
  }

  get due(): number {
    return this.began + (this.sent + this.values.length / this.channels) / this.rate;
  }

  look(moment: number): void {
    for (const sensor of this.sensors) this.values.push(sensor.read(moment));
  }

  take(): Taken | null {
    if (this.values.length === 0) return null;
    const taken = { firstIndex: this.sent, values: Float64Array.from(this.values), times: null };
    this.sent += this.values.length / this.channels;
    this.values = [];
    return taken;
  }
}

/** Tells every edge, with the states of all channels; first of all how they stand. */
class EdgeStream implements RunningStream {
  private sent = 0;
  private looks = 0;
  private events: { time: number; states: number[] }[] = [];
  private before: { moment: number; margins: number[] } | null = null;

  constructor(
    readonly number: number,
    private readonly began: number,
    private readonly plans: readonly EdgePlan[],
    private readonly step: number,
  ) {}

  get channels(): number {
    return this.plans.length;
  }

  get due(): number {
    return this.began + this.looks * edgeStep;
  }

  look(moment: number): void {
    this.looks++;
    const margins = this.plans.map(({ margin }) => margin());
    if (this.before === null) this.events.push({ time: 0, states: margins.map(stateOf) });
    else this.tell(this.before, { moment, margins });
    this.before = { moment, margins };
  }

  /** The edges between two looks, where the straight lines between the margins meet zero. */
  private tell(from: { moment: number; margins: number[] }, to: { moment: number; margins: number[] }): void {
    const states = from.margins.map(stateOf);
    const edges = this.plans
      .map((_, channel) => ({ channel, a: from.margins[channel], b: to.margins[channel] }))
      .filter(({ a, b }) => stateOf(a) !== stateOf(b))
      .map(({ channel, a, b }) => ({
        channel,
        time: from.moment + (a / (a - b)) * (to.moment - from.moment) - this.began,
      }))
      .sort((a, b) => a.time - b.time);
    for (const { channel, time } of edges) {
      states[channel] = 1 - states[channel];
      const counted = Math.round(time / this.step) * this.step;
      const last = this.events.at(-1);
      // Two in one step of the timer are one event.
      if (last !== undefined && last.time >= counted) last.states = [...states];
      else this.events.push({ time: counted, states: [...states] });
    }
  }

  take(): Taken | null {
    const { events } = this;
    if (events.length === 0) return null;
    const taken = {
      firstIndex: this.sent,
      values: Float64Array.from(events.flatMap(({ states }) => states)),
      times: Float64Array.from(events, ({ time }) => time),
    };
    this.sent += events.length;
    this.events = [];
    return taken;
  }
}

const stateOf = (margin: number) => Number(margin < 0);

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
    const stream: RunningStream =
      plan.sampling === 'events'
        ? new EdgeStream(number, this.now, plan.channels, plan.edges.step)
        : new SampledStream(
            number,
            rate,
            this.now,
            plan.channels.map(({ channel, truth, flaws = {} }) => {
              const sensor = new SensorChannel(channel, truth, flaws, random);
              sensor.choose(ranges[channel.key]);
              return sensor;
            }),
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
