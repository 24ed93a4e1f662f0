import { type Run } from '@heuristor/contracts';
import { type ChannelData, Evaluator, parseUnit } from '@heuristor/core';

/** Readings of one channel that may still grow. */
class GrowingChannel {
  private buffer: Float64Array;
  length: number;

  constructor(
    readonly channel: Run['channels'][number],
    values: Float64Array,
    private readonly storedTimes: Float64Array | null,
  ) {
    this.buffer = values;
    this.length = values.length;
  }

  /** Adds readings that came live; those known already are passed over, those in between are missing. */
  append(firstIndex: number, values: Float64Array): boolean {
    const end = firstIndex + values.length;
    if (end <= this.length) return false;
    if (end > this.buffer.length) {
      const larger = new Float64Array(Math.max(end, this.buffer.length * 2, 1024)).fill(NaN);
      larger.set(this.buffer.subarray(0, this.length));
      this.buffer = larger;
    }
    const from = Math.max(this.length, firstIndex);
    this.buffer.set(values.subarray(from - firstIndex), from);
    this.length = end;
    return true;
  }

  data(): ChannelData {
    const { key, symbol, quantity, unit, timeUnit, interval, start, low, high } = this.channel;
    const n = this.length;
    let times = this.storedTimes;
    if (times === null) {
      times = new Float64Array(n);
      for (let i = 0; i < n; i++) times[i] = start + i * (interval ?? 1);
    }
    return {
      key,
      symbol,
      quantity,
      unit: parseUnit(unit),
      times,
      timeUnit: parseUnit(timeUnit),
      interval,
      values: this.buffer.slice(0, n),
      low,
      high,
    };
  }
}

/** The runs that a bench shows, and an evaluator for each. */
export class RunStore {
  private readonly runs = new Map<string, { channels: GrowingChannel[]; evaluator: Evaluator | null }>();

  put(run: Run, values: Float64Array[], times: (Float64Array | null)[]): void {
    this.runs.set(run.id, {
      channels: run.channels.map((channel, i) => new GrowingChannel(channel, values[i], times[i])),
      evaluator: null,
    });
  }

  append(channelId: number, firstIndex: number, values: Float64Array): void {
    for (const run of this.runs.values())
      for (const channel of run.channels)
        if (channel.channel.id === channelId && channel.append(firstIndex, values)) run.evaluator = null;
  }

  drop(runId: string): void {
    this.runs.delete(runId);
  }

  evaluator(runId: string): Evaluator | null {
    const run = this.runs.get(runId);
    if (run === undefined) return null;
    if (run.evaluator === null) {
      const channels = run.channels.map((channel) => channel.data());
      shareTimes(channels);
      run.evaluator = new Evaluator({ id: runId, channels });
    }
    return run.evaluator;
  }
}

/** Channels with equal times get one array for them, by which the core knows that their readings belong together. */
function shareTimes(channels: ChannelData[]): void {
  for (const [i, channel] of channels.entries()) {
    const twin = channels
      .slice(0, i)
      .find(
        ({ times, interval }) =>
          times.length === channel.times.length &&
          interval === channel.interval &&
          times.every((time, k) => time === channel.times[k]),
      );
    if (twin !== undefined) channel.times = twin.times;
  }
}
