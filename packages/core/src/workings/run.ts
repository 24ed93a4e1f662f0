import { asPoint } from '../units/temperature';
import { type Pace } from '../pace/target';
import { Growing } from '../series/growing';
import { NoiseLevel } from '../series/noiseLevel';
import { type ReadingsRoot } from '../series/noisePath';
import { type Ranges } from '../series/ranges';
import { type Sampling, checkSampling, countOf, timesOf } from '../series/sampling';
import { type Series, type SharedEffect, readingsSeries } from '../series/series';
import { StrayWatch, strayFloor } from '../series/strays';
import { canConvert, conversionFactor, isTimeUnit } from '../units/conversion';
import { type Unit, parseUnit } from '../units/unit';

/** The readings of one channel of a run, as recorded. A reading that never came is NaN. */
export interface ChannelData {
  key: string;
  symbol: string;
  quantity: string;
  unit: Unit;
  /** What the abscissa is: time, or the number of the reading. */
  timeUnit: Unit;
  sampling: Sampling;
  values: Float64Array;
  /** Limits of the sensor: a reading at or beyond one of them is pinned and no measurement. */
  low: number | null;
  high: number | null;
  /** Standard deviation of a still reading, where the sensor says it. */
  noise: number | null;
  /** Standard uncertainty of each value, where each is a measurement of its own. */
  uncertainties?: Float64Array;
  /** 1 where a value is known to be no measurement, since the sensor stood at its limit for some of it. */
  pinned?: Uint8Array;
  /** The smallest step between two readings, where the device says one. */
  resolution?: number;
  /** What is uncertain about all readings together: the zero of the sensor, its calibration. */
  systematic?: readonly Systematic[];
  /** What else moves several of the values, each in a way of its own: what rows of a table owe to one source. */
  together?: readonly SharedEffect[];
  /** Covariance of each value with the one of the same row in another channel, by the key of that one, without what is in `together`. */
  beside?: Readonly<Record<string, Float64Array>>;
}

/** A root of uncertainty that all readings of a channel share, also in other runs: one standard deviation of it moves a reading. */
export interface Systematic {
  /** The same text wherever it is the same zero or calibration. */
  root: string;
  /** What people call it: “zero of F”. */
  label: string;
  /** By how much it moves every reading, in their unit, and by how much for each unit that is read. */
  offset: number;
  perUnit: number;
}

/** How a root of a channel moves its readings. */
function effectOf({ root, label, offset, perUnit }: Systematic, values: Float64Array): SharedEffect {
  let made: Float64Array | null = null;
  return {
    root,
    label,
    ...(perUnit === 0 ? { uniform: offset } : {}),
    get effect() {
      return (made ??= values.map((value) => offset + perUnit * value));
    },
  };
}

/** Readings that are no measurement and were left out, by their places and what was read. */
export interface LeftOut {
  index: number;
  value: number;
}

/** One run, as the evaluation sees it. */
export interface RunData {
  id: string;
  channels: ChannelData[];
  /** The line that it was to follow. */
  pace?: Pace | null;
  /** What was said of it. */
  conditions?: readonly Condition[];
}

/** A number that somebody typed for one run: the mass on the hook, the length of the cord. */
export interface Condition {
  name: string;
  /** Null where it is asked of every run and was not typed of this one. */
  value: number | null;
  /** Standard uncertainty; null where none was typed. */
  uncertainty: number | null;
  /** UCUM code. */
  unit: string;
  /** Roots that others know too, and how far one standard deviation of each moves it; one of its own where nothing is said. */
  roots?: readonly { root: string; label: string; by: number }[];
}

const rootKey = (runId: string, channel: string): string => `${runId}/${channel}`;

/** Which of its limits a pinned value stands at, or nearer to. */
const isUpper = (value: number, low: number | null, high: number | null) =>
  high !== null && (low === null || high - value < value - low);

/** A watch for echoes of something else, for positions that a sensor samples in time; null for all else. */
function watchFor(channel: ChannelData): StrayWatch | null {
  const { timeUnit, sampling } = channel;
  const second = parseUnit('s');
  if (sampling.kind !== 'regular' || !canConvert(timeUnit, second)) return null;
  const floor = strayFloor(channel, sampling.interval * conversionFactor(timeUnit, second));
  return floor === null ? null : new StrayWatch(floor);
}

/**
 * A channel as a series that grows: pinned readings and strays are taken out as they come, and all states share one
 * lineage, so that whatever is worked out from them can go on where it ended.
 */
export class ChannelSeries {
  private readonly clean = new Growing();
  private readonly atLimit = new Growing();
  private readonly lineage = {};
  private readonly root: ReadingsRoot;
  private readonly watch: StrayWatch | null;
  private sampling: Sampling;
  private raw: { sampling: Sampling; values: Float64Array };
  private state: Series | null = null;

  /**
   * @param aside readings that do not count
   * @param shift by how much the run is moved along its abscissa
   * @param keepsPinned whether readings count that are no measurement
   */
  constructor(
    private readonly runId: string,
    private readonly channel: ChannelData,
    readonly aside: Ranges = [],
    readonly shift = 0,
    readonly keepsPinned = false,
  ) {
    this.raw = channel;
    this.sampling = channel.sampling;
    this.watch = keepsPinned ? null : watchFor(channel);
    const readings = () => ({ sampling: this.sampling, values: this.clean.view() });
    const settled = () => ({ sampling: this.sampling, values: this.clean.view().subarray(0, this.settled) });
    this.root = {
      key: rootKey(runId, channel.key),
      label: `readings of ${channel.symbol}`,
      level: new NoiseLevel(settled, channel.noise, isTimeUnit(channel.timeUnit)),
      aside,
      readings,
    };
    this.grow(channel.sampling, channel.values);
  }

  /** Takes a longer state of the same readings. @throws Refusal where its times are no times */
  grow(own: Sampling, values: Float64Array): void {
    checkSampling(own);
    this.raw = { sampling: own, values };
    const sampling = shifted(own, this.shift);
    const count = Math.min(values.length, countOf(sampling));
    const known = this.clean.length;
    if (count <= known && this.state !== null) return;
    const { low, high, symbol, quantity, unit, timeUnit } = this.channel;
    const { uncertainties, pinned, systematic = [], together = [], resolution = 0, beside } = this.channel;
    const view = this.clean.extend(count);
    const least = (this.keepsPinned ? null : low) ?? -Infinity;
    const most = (this.keepsPinned ? null : high) ?? Infinity;
    const { watch, aside, keepsPinned } = this;
    let place = 0;
    for (let i = known; i < count; i++) {
      while (place < aside.length && aside[place][1] <= i) place++;
      const isAside = place < aside.length && aside[place][0] <= i;
      if (isAside) {
        view[i] = NaN;
        watch?.look(view, i);
        continue;
      }
      const value = values[i];
      const isGood = value > least && value < most && (keepsPinned || pinned?.[i] !== 1);
      view[i] = isGood ? value : NaN;
      if (!isGood && value === value)
        this.atLimit.push(Float64Array.of(isUpper(value, low, high) ? i + 1 : -(i + 1)));
      watch?.look(view, i);
    }
    this.sampling = sampling;
    this.state = readingsSeries({
      symbol,
      quantity,
      unit: asPoint(unit),
      timeUnit,
      sampling,
      values: view,
      root: this.root,
      lineage: this.lineage,
      settled: this.settled,
      ...(systematic.length + together.length === 0
        ? {}
        : { shared: [...systematic.map((one) => effectOf(one, view)), ...together] }),
      ...(resolution > 0 ? { step: resolution } : {}),
      ...(uncertainties === undefined ? {} : { uncertainties, repeats: true }),
      ...(beside === undefined
        ? {}
        : {
            beside: new Map(
              Object.entries(beside).map(([key, covariance]) => [rootKey(this.runId, key), covariance]),
            ),
          }),
    });
  }

  /** The same readings, of which others count or that lie elsewhere; a series of its own. */
  arranged(aside: Ranges, shift: number, keepsPinned: boolean): ChannelSeries {
    return new ChannelSeries(this.runId, { ...this.channel, ...this.raw }, aside, shift, keepsPinned);
  }

  /** Readings that were set aside, as they were recorded. */
  asideReadings(): { index: number; value: number }[] {
    const { values } = this.raw;
    return this.aside.flatMap(([first, past]) =>
      Array.from({ length: Math.max(Math.min(past, values.length) - first, 0) }, (_, i) => ({
        index: first + i,
        value: values[first + i],
      })),
    );
  }

  private get settled(): number {
    return this.watch?.settled(this.clean.length) ?? this.clean.length;
  }

  /** Echoes of something else. */
  get strays(): readonly LeftOut[] {
    return this.watch?.strays ?? [];
  }

  /** Readings that stand at a limit of the sensor, by their number from 1 on: positive at the upper one, negative at the lower. */
  get pinned(): Float64Array {
    return this.atLimit.view();
  }

  get series(): Series {
    if (this.state === null) throw new RangeError('a channel has a series from its beginning');
    return this.state;
  }
}

/** A sampling moved along its abscissa. */
function shifted(sampling: Sampling, by: number): Sampling {
  if (by === 0) return sampling;
  if (sampling.kind === 'regular') return { ...sampling, start: sampling.start + by };
  return { ...sampling, times: sampling.times.map((time) => time + by) };
}

/** What the abscissa is called: "t" where it is time, else "reading". */
export const abscissaName = (timeUnit: Unit): string => (timeUnit.length > 0 ? 't' : 'reading');

/** The abscissa of a series as a series of its own, without noise. */
export function abscissaOf({ timeUnit, sampling, lineage, settled }: Series): Series {
  return {
    symbol: abscissaName(timeUnit),
    quantity: timeUnit.length > 0 ? 'time' : 'reading number',
    unit: timeUnit,
    timeUnit,
    sampling,
    values: timesOf(sampling),
    noise: null,
    made: [],
    lineage,
    settled,
  };
}
