import { type MeasuredCell, type SpotColumn, type SpotTake } from '@heuristor/contracts';
import {
  Refusal,
  type SpotReading,
  conversionOf,
  parseUnit,
  printedUnit,
  spotMean,
  spotSwing,
  strayFloor,
  withoutStrays,
} from '@heuristor/core';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { gather } from '../sensors/gather';
import { type Readable } from './columns';

type Measured = Extract<SpotColumn, { kind: 'measured' }>;

const fewestReadings = 5;
/** With more than this share of readings at a limit, what is read is no measurement. */
const pinnedShare = 0.02;

/**
 * Reads every measured column once, all at the same time.
 * @param units unit of each column, as its series has it
 * @throws Failure where nothing comes, or where something moves and nobody has said that it may
 */
export async function measure(
  bus: Bus,
  columns: readonly SpotColumn[],
  found: ReadonlyMap<string, Readable>,
  { seconds, anyway, units }: { seconds: number; anyway: boolean; units: ReadonlyMap<string, string> },
): Promise<Record<string, MeasuredCell>> {
  const wanted = columns.filter((column): column is Measured => column.kind === 'measured');
  const parts = wanted.map((column) => {
    const readable = found.get(column.quantity);
    if (readable === undefined)
      throw new Failure(
        'device-absent',
        `Nothing brings ${column.quantity} now. Connect its sensor, or begin a new series without it.`,
      );
    return { column, readable };
  });
  const streams = [...new Set(parts.map(({ readable }) => readable.stream))];
  const gathered = new Map(
    await Promise.all(
      streams.map(async (stream) => {
        const count = Math.max(Math.ceil(seconds * (stream.sending?.rate ?? stream.rate)), fewestReadings);
        return [stream, await gather(bus, stream, count)] as const;
      }),
    ),
  );
  const cells: Record<string, MeasuredCell> = {};
  for (const { column, readable } of parts) {
    const values = gathered.get(readable.stream)?.[readable.track.channel] ?? new Float64Array(0);
    cells[column.key] = cellOf(column, readable, values, anyway, units.get(column.key));
  }
  return cells;
}

function cellOf(
  { key, take }: Measured,
  { stream, track }: Readable,
  sent: Float64Array,
  anyway: boolean,
  unit = track.fields.unit,
): MeasuredCell {
  const rate = stream.sending?.rate ?? stream.rate;
  const { range } = stream.views[track.channel];
  const { fields, scale, offset } = track;
  const isPinned = (value: number) => value <= range.low || value >= range.high;
  const pinnedCount = sent.filter(isPinned).length;
  const pinned = pinnedCount > pinnedShare * sent.length;
  const floor = strayFloor(
    { quantity: fields.quantity, unit: parseUnit(fields.unit), noise: Math.abs(scale) * range.noise },
    1 / rate,
  );
  const shown = sent.map((value) => (isPinned(value) && !pinned ? NaN : scale * value + offset));
  const values = pinned ? shown : withoutStrays(shown, floor);
  const readings = {
    values,
    interval: 1 / rate,
    noise: Math.abs(scale) * range.noise,
    resolution: Math.abs(scale) * range.resolution,
  };
  const reading = readingOf(key, take, readings);
  if (reading.unsteady !== null && !anyway && !pinned)
    throw new Failure('not-still', unsteadyWords(fields.symbol, fields.unit, reading.unsteady));
  const { factor, offset: shift } =
    take === 'mean' || take === 'amplitude'
      ? conversionOf(parseUnit(fields.unit), parseUnit(unit))
      : { factor: 1, offset: 0 };
  return {
    value: reading.value * factor + (take === 'mean' ? shift : 0),
    u: reading.standardUncertainty === null ? null : reading.standardUncertainty * Math.abs(factor),
    spread: reading.spread * Math.abs(factor),
    count: reading.count,
    pinned,
  };
}

function readingOf(key: string, take: SpotTake, readings: Parameters<typeof spotMean>[0]): SpotReading {
  try {
    return take === 'mean' ? spotMean(readings) : spotSwing(readings, take);
  } catch (error) {
    if (error instanceof Refusal) throw new Failure('not-still', `${key}: ${error.message}`);
    throw error;
  }
}

function unsteadyWords(
  symbol: string,
  unit: string,
  { kind, by }: NonNullable<SpotReading['unsteady']>,
): string {
  const amount = `${Number(by.toPrecision(2))} ${printedUnit(parseUnit(unit))}`.trim();
  switch (kind) {
    case 'drifts':
      return `${symbol} still drifts: by ${amount} while it was read. Wait until it rests, or take it anyway.`;
    case 'moves':
      return `${symbol} moves: it spreads by ${amount}. Wait until it rests, read its amplitude instead, or take it anyway.`;
    case 'grows':
      return `The swing of ${symbol} still grows or dies away, by ${amount} while it was read. Wait until it is steady, or take it anyway.`;
  }
}
