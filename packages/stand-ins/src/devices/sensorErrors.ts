import { type LinkChannel, type LinkRange, type Settable } from '@heuristor/contracts';
import { uniformRandom } from '@heuristor/core';
import { type ChannelPlan, type DevicePlan, type StreamPlan, announcedOf } from './device';
import { type Flaws, reachedBy } from './sensor';

const seeds = 10_000;
const seedControl = {
  key: 'itsSeed',
  label: 'Seed of what chance does',
  unit: '1',
  low: 0,
  high: seeds - 1,
  step: 1,
};

/** A flaw that can be set for every channel. */
interface ErrorKind {
  key: keyof Flaws;
  label: (symbol: string) => string;
  unit: (channel: LinkChannel) => string;
  reach: (range: LinkRange) => readonly [low: number, high: number, step: number];
  usual: number;
  /** Whether a channel can have it; all can, where nothing is said. */
  of?: (channel: LinkChannel, flaws: Flaws) => boolean;
}

const one = () => '1';
/** A tenth of a range, as a round number. */
const tenthOf = ({ low, high }: LinkRange): number => 10 ** Math.round(Math.log10((high - low) / 20));
const bothWays = (range: LinkRange): readonly [number, number, number] => {
  const tenth = tenthOf(range);
  return [-tenth, tenth, tenth / 100];
};
const seesEchoes = (_channel: LinkChannel, { lostShare }: Flaws) => lostShare !== undefined;

const errors: readonly ErrorKind[] = [
  {
    key: 'noiseFactor',
    label: (symbol) => `Noise of ${symbol}, times its usual`,
    unit: one,
    reach: () => [0, 20, 0.5],
    usual: 1,
    of: ({ ranges }) => ranges[0].noise > 0,
  },
  {
    key: 'stepFactor',
    label: (symbol) => `Steps of ${symbol}, times its usual`,
    unit: one,
    reach: () => [0, 50, 1],
    usual: 1,
    of: ({ ranges }) => ranges[0].resolution > 0,
  },
  {
    key: 'offset',
    label: (symbol) => `Offset of ${symbol}`,
    unit: ({ unit }) => unit,
    reach: bothWays,
    usual: 0,
  },
  {
    key: 'driftPerHour',
    label: (symbol) => `Drift of ${symbol} in an hour`,
    unit: ({ unit }) => unit,
    reach: bothWays,
    usual: 0,
  },
  {
    key: 'lagSeconds',
    label: (symbol) => `Lag of ${symbol}`,
    unit: () => 's',
    reach: () => [0, 2, 0.01],
    usual: 0,
  },
  {
    key: 'reach',
    label: (symbol) => `Limits of ${symbol}, times its usual`,
    unit: one,
    reach: ({ low, high }) => [low > 0 ? Math.max(0.05, (2 * low) / high) : 0.05, 1, 0.01],
    usual: 1,
    of: ({ ranges }) => ranges.every(({ low, high }) => low <= 0 || high > 2.5 * low),
  },
  {
    key: 'lostShare',
    label: (symbol) => `Echoes of ${symbol} that are lost`,
    unit: () => '%',
    reach: () => [0, 20, 0.05],
    usual: 0,
    of: seesEchoes,
  },
  {
    key: 'strayShare',
    label: (symbol) => `Echoes of ${symbol} from something else`,
    unit: () => '%',
    reach: () => [0, 5, 0.05],
    usual: 0,
    of: seesEchoes,
  },
];

/** Flaws that are shares are set as percentages. */
const perCent = (key: keyof Flaws) => (key === 'lostShare' || key === 'strayShare' ? 100 : 1);

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);

/** How the sensors of one device err, as it can be set on the Stage; what chance does begins with a seed that can be set too. */
export class SensorErrors {
  readonly list: Settable[] = [];
  /** The flaws of each channel; what is set is seen by whoever holds them. */
  private readonly flaws = new Map<string, Flaws>();
  private readonly places = new Map<string, { channel: string; flaw: keyof Flaws }>();
  private readonly usual: readonly number[];
  private generator: () => number;

  constructor(plan: DevicePlan, seed: number) {
    this.generator = uniformRandom(seed);
    for (const stream of plan.streams) if (stream.sampling === 'regular') stream.channels.forEach(this.add);
    if (this.list.length > 0) this.list.push({ ...seedControl, value: Math.abs(Math.round(seed)) % seeds });
    this.usual = this.list.map(({ value }) => value);
  }

  /** Between 0 and 1, from the device's own seed. */
  readonly random = (): number => this.generator();

  private readonly add = ({ channel, flaws = {} }: ChannelPlan): void => {
    this.flaws.set(channel.key, { ...flaws });
    for (const { key: flaw, label, unit, reach, usual, of } of errors) {
      if (of !== undefined && !of(channel, flaws)) continue;
      const [low, high, step] = reach(channel.ranges[0]);
      const value = (flaws[flaw] ?? usual) * perCent(flaw);
      const key = `its${capital(channel.key)}${capital(flaw)}`;
      this.places.set(key, { channel: channel.key, flaw });
      this.list.push({
        key,
        label: label(channel.symbol),
        unit: unit(channel),
        low: Math.min(low, value),
        high: Math.max(high, value),
        step,
        value,
      });
    }
  };

  flawsOf(channel: string): Flaws {
    return this.flaws.get(channel) ?? {};
  }

  /** A stream with the flaws that its channels have now and will have. */
  with(stream: StreamPlan): StreamPlan {
    if (stream.sampling !== 'regular') return stream;
    return {
      ...stream,
      channels: stream.channels.map((own) => ({ ...own, flaws: this.flawsOf(own.channel.key) })),
    };
  }

  /** Sets one of them. @returns whether it has this key, and whether the device has to say anew what it is */
  set(key: string, wanted: number): 'unknown' | 'set' | 'other' {
    const settable = this.list.find((candidate) => candidate.key === key);
    if (settable === undefined) return 'unknown';
    settable.value = Math.min(Math.max(wanted, settable.low), settable.high);
    const place = this.places.get(key);
    if (place === undefined) {
      this.generator = uniformRandom(settable.value);
      return 'set';
    }
    this.flawsOf(place.channel)[place.flaw] = settable.value / perCent(place.flaw);
    return place.flaw === 'reach' ? 'other' : 'set';
  }

  /** Lets it err again as it does when it starts. @returns whether the device has to say anew what it is */
  reset(): boolean {
    const answers = this.list.map(({ key }, i) => this.set(key, this.usual[i]));
    return answers.includes('other');
  }

  /** What the device announces of a stream, with the limits that it has now. */
  announced(stream: StreamPlan): ReturnType<typeof announcedOf> {
    const said = announcedOf(stream);
    const channels = said.channels.map((channel) => ({
      ...channel,
      ranges: channel.ranges.map((range) => reachedBy(range, this.flawsOf(channel.key))),
    }));
    return { ...said, channels };
  }
}
