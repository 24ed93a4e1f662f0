/** The ends of a scale on which a pointer stands. */
export interface Scale {
  low: number;
  high: number;
}

/** Scales are as long as one of these, by a power of ten. */
const lengths = [1, 2, 5, 10];

/** The least of the round lengths that is not shorter. */
function roundLength(length: number): number {
  const power = 10 ** Math.floor(Math.log10(length));
  const factor = lengths.find((one) => one * power >= length * (1 - 1e-12)) ?? 10;
  return factor * power;
}

/**
 * A scale that holds a value, with round ends: the one that stands as long as it does, else a longer one. So the pointer moves, and
 * the scale does not.
 * @param least how long it is at least: what is shorter would show noise as motion
 */
export function scaleHolding(standing: Scale | null, value: number, least: number): Scale {
  if (!Number.isFinite(value)) return standing ?? { low: 0, high: roundLength(least) };
  if (standing !== null && value >= standing.low && value <= standing.high) return standing;
  const low = Math.min(standing?.low ?? Math.min(value, 0), value);
  const high = Math.max(standing?.high ?? Math.max(value, 0), value);
  const end = roundLength(Math.max(Math.abs(low), Math.abs(high), least));
  return { low: low < 0 ? -end : 0, high: high > 0 || low >= 0 ? end : 0 };
}

/** How far along a scale a value stands, from 0 to 1. */
export const shareOn = ({ low, high }: Scale, value: number): number =>
  Math.min(Math.max((value - low) / (high - low), 0), 1);
