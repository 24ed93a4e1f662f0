import { type Channel, type Run } from '@heuristor/contracts';
import { type ChannelData, Evaluator, Growing, type Sampling, parseUnit, regular } from '@heuristor/core';
import { type FreshReadings, type RunReadings, type SingleReadings } from './readings';
import { systematicOf } from './systematic';

/** Readings of one channel that may still grow; what comes is added, and nothing that stands is copied. */
class GrowingChannel {
  private readonly values: Growing;
  private times: Growing | null;

  constructor(
    readonly channel: Channel,
    values: Float64Array,
    times: Float64Array | null,
    private readonly runId: string,
    private readonly single?: SingleReadings,
  ) {
    this.values = Growing.from(values);
    this.times = channel.sampling.kind === 'regular' ? null : Growing.from(times ?? new Float64Array(0));
  }

  get length(): number {
    return this.values.length;
  }

  /** Adds readings; those known already are passed over. Answers where readings are missing before them, or null. */
  append(firstIndex: number, values: Float64Array, times: Float64Array | null): number | null {
    const known = this.values.length;
    if (firstIndex > known) return known;
    const fresh = known - firstIndex;
    if (fresh >= values.length) return null;
    this.values.push(values.subarray(fresh));
    // Times that were fetched after the values may be of some more readings, which come by themselves.
    if (times !== null) this.times?.push(times.subarray(fresh, values.length));
    return null;
  }

  sampling(): Sampling {
    const { sampling } = this.channel;
    if (sampling.kind === 'regular') return regular(sampling.start, sampling.interval, this.values.length);
    const times = this.times?.view() ?? new Float64Array(0);
    if (sampling.kind === 'timed') return { kind: 'timed', times };
    const step = this.channel.edges?.step;
    const states = Uint8Array.from(this.values.view());
    return { kind: 'events', times, states, ...(step === undefined ? {} : { resolution: step }) };
  }

  data(): ChannelData {
    const { key, symbol, quantity, unit, timeUnit, low, high, noise, resolution } = this.channel;
    const systematic = systematicOf(this.channel, this.runId);
    return {
      key,
      symbol,
      quantity,
      unit: parseUnit(unit),
      timeUnit: parseUnit(timeUnit),
      sampling: this.sampling(),
      values: this.values.view(),
      low,
      high,
      noise,
      ...(resolution > 0 ? { resolution } : {}),
      ...(systematic.length > 0 ? { systematic } : {}),
      ...this.single,
    };
  }

  view(): Float64Array {
    return this.values.view();
  }

  /** Takes over the times of a channel that was sampled together with this one. */
  shareTimes(times: Float64Array): void {
    this.times = Growing.from(times);
  }
}

interface Held {
  channels: GrowingChannel[];
  evaluator: Evaluator;
  /** Channels that have grown since the evaluator was last asked. */
  grown: Set<GrowingChannel>;
}

/** A run with its readings, where it is held. */
export interface HeldRun {
  evaluator: Evaluator;
  /** Its channels with their readings as they were recorded. */
  channels(): { channel: Channel; values: Float64Array }[];
  /** The same by the keys of the channels. */
  recorded(): ReadonlyMap<string, Float64Array>;
  /** How many readings of each channel are here. */
  lengths(): number[];
}

/** Runs with their readings in memory, and an evaluator for each: in a browser's worker, or in a thread of the server. */
export class HeldRuns {
  private readonly runs = new Map<string, Held>();

  put(run: Run, { values, times, single }: RunReadings): void {
    const channels = run.channels.map(
      (channel, i) => new GrowingChannel(channel, values[i], times[i], run.id, single?.[i]),
    );
    shareTimes(channels);
    const target = run.plan?.way === 'pace' ? run.plan.pace : null;
    const pace = target === null ? null : { ...target, unit: parseUnit(target.unit) };
    const evaluator = new Evaluator({
      id: run.id,
      pace,
      channels: channels.map((channel) => channel.data()),
    });
    this.runs.set(run.id, { channels, evaluator, grown: new Set() });
  }

  /** Adds readings of several channels; answers as `append` does for each. */
  appendAll(parts: readonly FreshReadings[]): (number | null)[] {
    return parts.map(({ channelId, firstIndex, values, times }) =>
      this.append(channelId, firstIndex, values, times),
    );
  }

  append(
    channelId: number,
    firstIndex: number,
    values: Float64Array,
    times: Float64Array | null,
  ): number | null {
    for (const run of this.runs.values())
      for (const channel of run.channels) {
        if (channel.channel.id !== channelId) continue;
        const missing = channel.append(firstIndex, values, times);
        if (missing === null) run.grown.add(channel);
        return missing;
      }
    return null;
  }

  drop(runId: string): void {
    this.runs.delete(runId);
  }

  /** A run, to be asked; null where it is not here. */
  held(runId: string): HeldRun | null {
    const evaluator = this.evaluator(runId);
    return evaluator === null
      ? null
      : {
          evaluator,
          channels: () => this.channels(runId),
          recorded: () => this.recorded(runId),
          lengths: () => this.lengths(runId),
        };
  }

  private lengths(runId: string): number[] {
    return this.runs.get(runId)?.channels.map(({ length }) => length) ?? [];
  }

  /** The channels of a run with their readings as they were recorded. */
  channels(runId: string): { channel: Channel; values: Float64Array }[] {
    const channels = this.runs.get(runId)?.channels ?? [];
    return channels.map((channel) => ({ channel: channel.channel, values: channel.view() }));
  }

  /** The readings of each channel as they were recorded, by the channel's key. */
  recorded(runId: string): Map<string, Float64Array> {
    return new Map(this.channels(runId).map(({ channel, values }) => [channel.key, values]));
  }

  evaluator(runId: string): Evaluator | null {
    const run = this.runs.get(runId);
    if (run === undefined) return null;
    for (const channel of run.grown)
      run.evaluator.grow(channel.channel.key, channel.sampling(), channel.view());
    run.grown.clear();
    return run.evaluator;
  }
}

/** Channels of a file with equal times get one array for them, by which the core knows that their readings belong together. */
function shareTimes(channels: GrowingChannel[]): void {
  const seen: Float64Array[] = [];
  for (const channel of channels) {
    const sampling = channel.sampling();
    if (sampling.kind === 'regular') continue;
    const twin = seen.find(
      (times) =>
        times.length === sampling.times.length && times.every((time, i) => time === sampling.times[i]),
    );
    if (twin === undefined) seen.push(sampling.times);
    else channel.shareTimes(twin);
  }
}
