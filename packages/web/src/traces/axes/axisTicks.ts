import { ticks } from 'd3-array';
import { shortText } from '../../ui/numberText';

export interface Tick {
  value: number;
  text: string;
}

/** Round numbers along an axis, about so many, none of them beyond its ends. */
export const axisTicks = (low: number, high: number, about: number): Tick[] =>
  high > low && Number.isFinite(high - low)
    ? ticks(low, high, Math.max(about, 1)).map((value) => ({ value, text: tickText(value) }))
    : [];

/** Digits that a double cannot hold are not shown, and a minus is a minus. */
const tickText = (value: number) => shortText(value, 10);

/** Pixels that a figure takes, as a share of the size of its type. */
const figureWidth = 0.6;
const [apartAcross, apartUp] = [24, 22];

/** How many ticks have room side by side: their texts must not touch. */
export function acrossTicks(low: number, high: number, width: number, size: number): Tick[] {
  for (let about = Math.min(11, Math.ceil(width / (2 * apartAcross))); about > 1; about--) {
    const found = axisTicks(low, high, about);
    const longest = Math.max(0, ...found.map(({ text }) => text.length)) * figureWidth * size;
    if (found.length < 2 || width / found.length > longest + apartAcross) return found;
  }
  return axisTicks(low, high, 1);
}

/** Pixels between two numbers one above the other, where there is so little room that a single one would be left. */
const leastApartUp = 6;

/** How many ticks have room one above the other: two at the least, or nobody could read a value off. */
export function uprightTicks(low: number, high: number, height: number, size: number): Tick[] {
  const about = Math.min(6, Math.floor(height / (size + apartUp)));
  const found = axisTicks(low, high, about);
  for (let more = about + 1; found.length === 1 && more <= 6; more++) {
    const closer = axisTicks(low, high, more);
    if (closer.length > 1 && height / closer.length > size + leastApartUp) return closer;
  }
  return found;
}
