import { ticks } from 'd3-array';
import { scaleLog } from 'd3-scale';
import { shortText } from '../../ui/numberText';
import { type Sight } from '../../workers/protocol';
import { shareOf } from './axisScale';

export interface Tick {
  value: number;
  /** '' where only a line of the grid stands. */
  text: string;
}

/** Round numbers along an axis, about so many, none of them beyond its ends. */
export function axisTicks({ from, to, isLogarithmic }: Sight, about: number): Tick[] {
  if (!(to > from) || !Number.isFinite(to - from)) return [];
  const values =
    isLogarithmic === true && from > 0
      ? scaleLog([from, to], [0, 1]).ticks(Math.max(about, 1))
      : ticks(from, to, Math.max(about, 1));
  return values.map((value) => ({ value, text: tickText(value) }));
}

/** Digits that a double cannot hold are not shown, and a minus is a minus. */
const tickText = (value: number) => shortText(value, 10);

/** Pixels that a figure takes, as a share of the size of its type. */
const figureWidth = 0.6;
const [apartAcross, apartUp] = [24, 22];

/** How many ticks have room side by side: their texts must not touch. */
export function acrossTicks(axis: Sight, width: number, size: number): Tick[] {
  if (axis.isLogarithmic === true)
    return withRoom(axis, width, ({ text }) => text.length * figureWidth * size + apartAcross / 2);
  for (let about = Math.min(11, Math.ceil(width / (2 * apartAcross))); about > 1; about--) {
    const found = axisTicks(axis, about);
    const longest = Math.max(0, ...found.map(({ text }) => text.length)) * figureWidth * size;
    if (found.length < 2 || width / found.length > longest + apartAcross) return found;
  }
  return axisTicks(axis, 1);
}

/** Pixels between two numbers one above the other, where there is so little room that a single one would be left. */
const leastApartUp = 6;

/** How many ticks have room one above the other: two at the least, or nobody could read a value off. */
export function uprightTicks(axis: Sight, height: number, size: number): Tick[] {
  if (axis.isLogarithmic === true) return withRoom(axis, height, () => size + leastApartUp);
  const about = Math.min(6, Math.floor(height / (size + apartUp)));
  const found = axisTicks(axis, about);
  for (let more = about + 1; found.length === 1 && more <= 6; more++) {
    const closer = axisTicks(axis, more);
    if (closer.length > 1 && height / closer.length > size + leastApartUp) return closer;
  }
  return found;
}

/** Pixels of a power of ten in which its multiples have lines too, and so many lines where an axis holds less than one. */
const [roomForMultiples, linesWithin] = [30, 10];

/**
 * The ticks of a logarithmic axis, with numbers where they have room: first at powers of ten, then at their twofold and fivefold, then
 * at all others.
 * @param roomFor pixels that a number takes along the axis
 */
function withRoom(axis: Sight, pixels: number, roomFor: (tick: Tick) => number): Tick[] {
  const all = axisTicks(axis, Math.min(pixels / roomForMultiples, linesWithin));
  const shown: { tick: Tick; at: number; room: number }[] = [];
  for (const rank of [1, 2, 3]) {
    const before = shown.length;
    let isTight = false;
    for (const tick of all) {
      if (rankOf(tick.value) !== rank) continue;
      const [at, room] = [shareOf(tick.value, axis) * pixels, roomFor(tick)];
      if (shown.some((other) => Math.abs(other.at - at) < (other.room + room) / 2)) isTight = true;
      else shown.push({ tick, at, room });
    }
    // Some of a kind and not others would look as if they meant something; but two numbers there must be.
    if (isTight && before >= 2) shown.length = before;
  }
  const hasText = new Set(shown.map(({ tick }) => tick));
  return all.map((tick) => (hasText.has(tick) ? tick : { ...tick, text: '' }));
}

/** 1 for powers of ten, 2 for their twofold and fivefold, 3 for others. */
function rankOf(value: number): 1 | 2 | 3 {
  const [mantissa] = value.toExponential(6).split('e').map(Number);
  return mantissa === 1 ? 1 : mantissa === 2 || mantissa === 5 ? 2 : 3;
}
