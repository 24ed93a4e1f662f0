import { type Level, type Plan } from '@heuristor/contracts';
import { conversionOf, multiplyUnits, parseUnit, printedUnit } from '@heuristor/core';
import { Failure } from '../failure';
import { type Threshold, speedNoise } from './crossing';
import { type Source, type TrackPlan } from './track';
import { zeroedAtStart } from './zeroAtStart';

/** Noise reaches four times its standard deviation once in 30 000 readings (normal distribution). */
const clearlyFactor = 4;

/** A quantity by its key, with the stream that it comes from. @throws Failure where no sensor brings it */
export function findQuantity(key: string, sources: readonly Source[]): { source: Source; track: TrackPlan } {
  for (const source of sources)
    for (const track of source.tracks) if (track.fields.key === key) return { source, track };
  throw new Failure(
    'nothing-connected',
    `The plan waits for “${key}”, and no sensor that sends measures it. Connect it, or choose another quantity in the plan.`,
  );
}

const shown = (value: number) => Number(value.toPrecision(4)).toString().replace('-', '−');

/**
 * A level in the unit of its quantity.
 * @throws Failure for a unit of something else, or a level that its sensor never reaches
 */
export function thresholdOf({ quantity, of, value, unit }: Level, sources: readonly Source[]): Threshold {
  const { source, track } = findQuantity(quantity, sources);
  // Of what begins at zero, the limits are those about the place where it rests; not known before it has rested.
  const { fields } = zeroedAtStart(track);
  const isUnrested = track.still !== null && track.still.rest === null;
  if (source.sampling === 'events')
    throw new Failure('invalid-request', `${fields.symbol} says when something switched and has no level.`);
  const written = parseUnit(unit);
  const reading = of === 'speed' ? multiplyUnits(written, parseUnit('s')) : written;
  let threshold: number;
  try {
    const { factor, offset } = conversionOf(reading, parseUnit(fields.unit));
    threshold = factor * value + (of === 'speed' ? 0 : offset);
  } catch {
    throw new Failure(
      'invalid-request',
      `${fields.symbol} is measured in ${printedUnit(parseUnit(fields.unit))}; a level in “${unit}” cannot be compared with it.`,
    );
  }
  const { low, high } = fields;
  if (
    of === 'reading' &&
    !isUnrested &&
    low !== null &&
    high !== null &&
    !(threshold > low && threshold < high)
  )
    throw new Failure(
      'invalid-request',
      `${fields.symbol} never reaches ${shown(value)} ${printedUnit(written)}: its sensor sees ${shown(low)} to ${shown(high)} ${printedUnit(parseUnit(fields.unit))}. Choose a level between them.`,
    );
  const noise = Math.max((fields.noise ?? 0) * (of === 'speed' ? speedNoise * source.rate : 1), 0);
  return {
    value: threshold,
    margin: Math.max(clearlyFactor * noise, of === 'reading' ? fields.resolution : 0),
  };
}

/**
 * Holds the beginning and the end of a run against each other.
 * @throws Failure where a run would begin when it is past its end already
 */
export function checkTogether({ begin, end }: Plan, sources: readonly Source[]): void {
  if (begin.kind !== 'level' || end.kind !== 'level') return;
  const [first, last] = [begin.level, end.level];
  if (first.quantity !== last.quantity || first.of !== last.of || first.direction !== last.direction) return;
  const [from, to] = [thresholdOf(first, sources).value, thresholdOf(last, sources).value];
  const isRise = first.direction === 'rise';
  if (isRise ? to >= from : to <= from) return;
  const { symbol } = findQuantity(first.quantity, sources).track.fields;
  const [goes, otherWay, beyond] = isRise ? ['rises', 'falls', 'above'] : ['falls', 'rises', 'below'];
  const what = first.of === 'speed' ? `the speed of ${symbol}` : symbol;
  const words = ({ value, unit }: Level) => `${shown(value)} ${printedUnit(parseUnit(unit))}`;
  throw new Failure(
    'invalid-request',
    `A run that begins when ${what} ${goes} through ${words(first)} is past ${words(last)} already, at which it is to end. Let it end ${beyond} ${words(first)}, or when ${what} ${otherWay} through ${words(last)}.`,
  );
}

/** @throws Failure where a quantity does not come as events */
export function checkEvents(key: string, sources: readonly Source[]): void {
  const { source, track } = findQuantity(key, sources);
  if (source.sampling !== 'events')
    throw new Failure(
      'invalid-request',
      `${track.fields.symbol} is read at a rate and does not switch. Choose a gate or a switch.`,
    );
}
