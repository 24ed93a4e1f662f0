import { type Beginning, type Ending, type Plan, usualPlan } from '@heuristor/contracts';
import { type RecorderEffect, type RecorderEvent, type RecorderState } from '../recorder/state';
import { type Readings, type Source } from '../recorder/track';
import { step } from '../recorder/step';
import { source } from './recorderParts';

/** A recorder in front of one sensor that sends every 20 ms, with a memory of what it sent. */
export class RecorderBench {
  state: RecorderState = { phase: 'idle' };
  private readonly sent: Readings[] = [];
  private index = 0;
  readonly times: number[] = [];
  readonly values: number[] = [];

  constructor(
    private readonly position: (seconds: number) => number,
    private readonly sources: Source[] = [source()],
  ) {}

  tell(event: RecorderEvent): void {
    const [state, effects] = step(this.state, event);
    this.state = state;
    effects.forEach((effect) => this.carryOut(effect));
  }

  private carryOut(effect: RecorderEffect): void {
    if (effect.kind === 'enter') this.tell({ kind: 'entered' });
    if (effect.kind === 'replay') this.sent.forEach((event) => this.tell(event));
    if (effect.kind === 'append' && effect.track === 0 && 'tracks' in this.state) {
      const { start, rate } = this.state.tracks[0];
      effect.values.forEach((value, i) => {
        this.times.push(start + (effect.firstIndex + i) / rate);
        this.values.push(value);
      });
    }
  }

  /** Something that a sensor sends besides. */
  send(event: Readings): void {
    this.sent.push(event);
    this.tell(event);
  }

  /** Time of the sensor, in seconds since its stream began. */
  get seconds(): number {
    return this.index / this.sources[0].rate;
  }

  /** Sends readings for so long, a few at a time. */
  pass(seconds: number, together = 2): this {
    const { rate, code, stream, epoch } = this.sources[0];
    for (const end = this.seconds + seconds; this.seconds < end - 1e-9;) {
      const values = Float64Array.from({ length: together }, (_, i) =>
        this.position((this.index + i) / rate),
      );
      const event = {
        kind: 'readings' as const,
        code,
        stream,
        epoch,
        firstIndex: this.index,
        channels: 1,
        values,
        times: null,
      };
      this.index += together;
      this.sent.push(event);
      this.tell(event);
      this.tell({ kind: 'tick', now: epoch + this.seconds * 1000 });
    }
    return this;
  }

  arm(begin: Beginning, end: Ending = { kind: 'after', seconds: 2 }): this {
    const plan: Plan = { ...usualPlan, begin, end };
    this.tell({ kind: 'arm', now: 1000 + this.seconds * 1000, plan, sources: this.sources });
    return this;
  }

  get phase(): string {
    return this.state.phase;
  }

  get run() {
    if (!('tracks' in this.state)) throw new Error(`it is ${this.state.phase}`);
    return this.state;
  }
}
