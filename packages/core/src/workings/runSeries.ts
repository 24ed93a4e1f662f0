import { sameName } from '../formula/names';
import { Refusal } from '../refusal';
import { type Ranges } from '../series/ranges';
import { countOf, timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { conditionResult } from './conditionResult';
import { type Workings } from './entries';
import { type Named } from './kind';
import { type NamedResult } from './outcome';
import { type SeriesRef, channelRef } from './references';
import {
  type ChannelData,
  ChannelSeries,
  type Condition,
  type LeftOut,
  type RunData,
  abscissaName,
  abscissaOf,
} from './run';

/** The channels of one run as series that grow, arranged as a sheet asks, and what was said of the run. */
export class RunSeries {
  private readonly channels = new Map<string, ChannelSeries>();
  private readonly abscissas = new WeakMap<Series, Series>();
  /** The conditions of this run as results, by their names. */
  private said = new Map<string, { text: string; result: NamedResult | null }>();
  /** What the channels were arranged by last. */
  private arranged: Required<Omit<Workings, 'entries'>> = { aside: nothing, shifts: nothing, runs: nothing };

  constructor(readonly run: RunData) {
    this.say(run.conditions ?? nothing);
    for (const channel of run.channels) this.channels.set(channel.key, new ChannelSeries(run.id, channel));
  }

  /** Readings of a channel that stand at a limit of the sensor, as `ChannelSeries` numbers them. */
  pinnedOf(key: string): Float64Array {
    return this.channels.get(key)?.pinned ?? new Float64Array(0);
  }

  /** Readings that a person has set aside, as they were recorded. */
  asideOf(key: string): readonly LeftOut[] {
    return this.channels.get(key)?.asideReadings() ?? [];
  }

  /** By how much the run is moved along its abscissa. */
  get shift(): number {
    const [first] = this.channels.values();
    return first?.shift ?? 0;
  }

  /** Echoes of something else that a channel is without. */
  straysOf(key: string): readonly LeftOut[] {
    return this.channels.get(key)?.strays ?? [];
  }

  /** From the first to the last moment of the whole run; a run of events begins at its zero at the latest. Null of an empty one. */
  reach(): { low: number; high: number } | null {
    let low = Infinity;
    let high = -Infinity;
    for (const { series } of this.channels.values()) {
      const { sampling } = series;
      const count = countOf(sampling);
      if (count === 0) continue;
      low = Math.min(low, timeAt(sampling, 0), sampling.kind === 'events' ? 0 : Infinity);
      high = Math.max(high, timeAt(sampling, count - 1));
    }
    return low <= high ? { low, high } : null;
  }

  /** The first and the last edge of a run that holds nothing else; null where it holds readings, or nothing. */
  edges(): { first: number; last: number } | null {
    const all = [...this.channels.values()].map(({ series }) => series.sampling);
    const counted = all.filter((sampling) => countOf(sampling) > 0);
    if (counted.length === 0 || all.some(({ kind }) => kind !== 'events')) return null;
    return {
      first: Math.min(...counted.map((sampling) => timeAt(sampling, 0))),
      last: Math.max(...counted.map((sampling) => timeAt(sampling, countOf(sampling) - 1))),
    };
  }

  /** Takes readings that have come; what stands is kept, and only what they change is worked out anew. */
  grow(key: string, sampling: ChannelData['sampling'], values: Float64Array): void {
    this.channels.get(key)?.grow(sampling, values);
  }

  /** Takes what is said of this run; what still stands is the same result, so that nothing is worked out anew for it. */
  say(conditions: readonly Condition[]): void {
    const before = this.said;
    this.said = new Map(
      conditions.map((condition) => {
        const key = sameName(condition.name);
        const text = JSON.stringify(condition);
        const known = before.get(key);
        return [key, known?.text === text ? known : { text, result: conditionResult(condition) }];
      }),
    );
  }

  /** Sets aside what the sheet sets aside, counts what it counts, and lays the run where the sheet lays it. */
  protected arrange({ aside = nothing, shifts = nothing, runs = nothing }: Workings): void {
    const { arranged } = this;
    if (aside === arranged.aside && shifts === arranged.shifts && runs === arranged.runs) return;
    this.arranged = { aside, shifts, runs };
    const keepsPinned = runs.find(({ run }) => run === this.run.id)?.keepPinned ?? false;
    const shift = shifts.find(({ run }) => run === this.run.id)?.by ?? 0;
    for (const [key, channel] of this.channels) {
      const ranges =
        aside.find(({ run, channel: own }) => run === this.run.id && own === key)?.ranges ?? nothing;
      if (
        shift !== channel.shift ||
        keepsPinned !== channel.keepsPinned ||
        !sameRanges(ranges, channel.aside)
      )
        this.channels.set(key, channel.arranged(ranges, shift, keepsPinned));
    }
  }

  /** The channels whose values are measurements of their own, as they are arranged now. */
  repeats(): Map<SeriesRef, Series> {
    return new Map(
      [...this.channels]
        .filter(([, { series }]) => series.repeats === true)
        .map(([key, { series }]) => [channelRef(key), series]),
    );
  }

  /** @throws Refusal where the run has no such channel */
  protected channel(key: string): Series {
    const channel = this.channels.get(key);
    if (channel === undefined) throw new Refusal(`This run has no ${key}.`, key);
    return channel.series;
  }

  protected symbols(): string[] {
    return [...this.channels.values()].map(({ series }) => series.symbol);
  }

  /** What is called so in the run: a channel, its abscissa, or what was said of it. @throws Refusal */
  protected calledInRun(name: string): Named | null {
    const wanted = sameName(name);
    for (const [key, { series }] of this.channels)
      if (sameName(series.symbol) === wanted || key === name)
        return { kind: 'series', reference: channelRef(key) };
    const said = this.said.get(wanted);
    if (said !== undefined) {
      if (said.result === null)
        throw new Refusal(
          `${name} was not typed of this run. Bring it to the front by its menu, and type ${name} under the traces.`,
        );
      return { kind: 'result', result: said.result };
    }
    const [any] = this.channels.values();
    if (any !== undefined && wanted === sameName(abscissaName(any.series.timeUnit)))
      return { kind: 'series', reference: 't' };
    return null;
  }

  /** The abscissa of a series as a series of its own. */
  protected abscissa(like: Series): Series {
    let abscissa = this.abscissas.get(like);
    if (abscissa === undefined) this.abscissas.set(like, (abscissa = abscissaOf(like)));
    return abscissa;
  }

  protected anyChannel(): Series {
    const [first] = this.channels.values();
    if (first === undefined) throw new Refusal('This run holds no channel.');
    return first.series;
  }
}

const nothing: readonly never[] = [];

const sameRanges = (a: Ranges, b: Ranges) =>
  a.length === b.length && a.every(([first, past], i) => first === b[i][0] && past === b[i][1]);
