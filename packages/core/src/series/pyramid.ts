import { pow } from '../elementary';
const baseBlock = 64;
const fan = 8;

interface Level {
  size: number;
  low: Float64Array;
  high: Float64Array;
  missing: Uint8Array;
  count: number;
}

export interface Extremes {
  /** Infinity where no value is there. */
  low: number;
  high: number;
  missing: boolean;
}

/**
 * Least and greatest value of any interval of a growing series in a time that hardly depends on its length: extremes of
 * blocks of 64 values, of 8 of those, and so on. Built as the values come; only whole blocks are kept.
 */
export class MinMaxPyramid {
  private readonly levels: Level[] = [];

  /** Goes on over values that no later reading can change. */
  grow(values: Float64Array, settled: number): void {
    for (let depth = 0; ; depth++) {
      const size = baseBlock * pow(fan, depth);
      const whole = Math.floor(settled / size);
      if (whole === 0) return;
      const level = (this.levels[depth] ??= {
        size,
        low: new Float64Array(16),
        high: new Float64Array(16),
        missing: new Uint8Array(16),
        count: 0,
      });
      if (whole > level.low.length) {
        const room = Math.max(whole, 2 * level.low.length);
        const larger = { low: new Float64Array(room), high: new Float64Array(room) };
        larger.low.set(level.low);
        larger.high.set(level.high);
        const missing = new Uint8Array(room);
        missing.set(level.missing);
        Object.assign(level, larger, { missing });
      }
      for (let block = level.count; block < whole; block++) {
        const extremes = emptyExtremes();
        if (depth === 0) scan(values, block * size, (block + 1) * size, extremes);
        else {
          const below = this.levels[depth - 1];
          for (let part = block * fan; part < (block + 1) * fan; part++) take(below, part, extremes);
        }
        level.low[block] = extremes.low;
        level.high[block] = extremes.high;
        level.missing[block] = Number(extremes.missing);
      }
      level.count = whole;
    }
  }

  /** Extremes of the values from `first` up to `end`. */
  extremes(values: Float64Array, first: number, end: number): Extremes {
    const found = emptyExtremes();
    let at = first;
    while (at < end) {
      let used: Level | null = null;
      for (const level of this.levels) {
        if (at % level.size !== 0 || at + level.size > end || at / level.size >= level.count) break;
        used = level;
      }
      if (used !== null) {
        take(used, at / used.size, found);
        at += used.size;
      } else {
        const next = Math.min(end, (Math.floor(at / baseBlock) + 1) * baseBlock);
        scan(values, at, next, found);
        at = next;
      }
    }
    return found;
  }
}

const emptyExtremes = (): Extremes => ({ low: Infinity, high: -Infinity, missing: false });

function take({ low, high, missing }: Level, block: number, into: Extremes): void {
  if (low[block] < into.low) into.low = low[block];
  if (high[block] > into.high) into.high = high[block];
  if (missing[block] === 1) into.missing = true;
}

function scan(values: Float64Array, first: number, end: number, into: Extremes): void {
  let { low, high, missing } = into;
  for (let i = first; i < end; i++) {
    const value = values[i];
    if (value < low) low = value;
    if (value > high) high = value;
    if (value !== value) missing = true;
  }
  into.low = low;
  into.high = high;
  into.missing = missing;
}

const pyramids = new WeakMap<object, MinMaxPyramid>();

/** The pyramid of a series, shared by all states of its growth. */
export function pyramidOf(series: { lineage: object; values: Float64Array; settled: number }): MinMaxPyramid {
  let pyramid = pyramids.get(series.lineage);
  if (pyramid === undefined) pyramids.set(series.lineage, (pyramid = new MinMaxPyramid()));
  pyramid.grow(series.values, series.settled);
  return pyramid;
}
