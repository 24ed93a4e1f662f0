import { type Sight } from '../../workers/protocol';

/** An interval of an axis as lengths on it are counted: of a logarithmic one its logarithms. */
export const counted = ({ from, to, isLogarithmic }: Sight): { from: number; to: number } =>
  isLogarithmic === true ? { from: Math.log(from), to: Math.log(to) } : { from, to };

/**
 * Where a value stands along an axis: 0 at its beginning, 1 at its end.
 * @returns −∞ for a value that is not above zero on a logarithmic axis
 */
export function shareOf(value: number, axis: Sight): number {
  const { from, to } = counted(axis);
  const at = axis.isLogarithmic !== true ? value : value > 0 ? Math.log(value) : -Infinity;
  return (at - from) / (to - from);
}

/** The value that stands at a place along an axis. */
export function valueAtShare(share: number, axis: Sight): number {
  const { from, to } = counted(axis);
  const at = from + share * (to - from);
  return axis.isLogarithmic === true ? Math.exp(at) : at;
}

/** How much of its axis a pixel is, about a value, for an axis so many pixels long. */
export const pixelAt = (value: number, axis: Sight, pixels: number): number => {
  const { from, to } = counted(axis);
  return ((to - from) / pixels) * (axis.isLogarithmic === true ? value : 1);
};

/** Does something to the ends of an axis as if equal lengths were equal differences. */
export function asLengths(axis: Sight, change: (ends: Sight) => Sight): Sight {
  const { from, to } = change(counted(axis));
  return axis.isLogarithmic === true ? { from: Math.exp(from), to: Math.exp(to) } : { from, to };
}

/** What a hand has set, where it can be shown: an axis may have become logarithmic since then, which begins above zero. */
export const usable = <S extends Sight | null | undefined>(
  set: S,
  isLogarithmic: boolean | undefined,
): S | null => (isLogarithmic === true && set != null && !(set.from > 0) ? null : set);

/** A vertical axis as an interval. */
export const ofAxis = ({
  low,
  high,
  isLogarithmic,
}: {
  low: number;
  high: number;
  isLogarithmic?: true;
}): Sight => ({ from: low, to: high, ...marked(isLogarithmic) });

/** The mark of a logarithmic axis, where it is one. */
export const marked = (isLogarithmic: boolean | undefined): { isLogarithmic?: true } =>
  isLogarithmic === true ? { isLogarithmic } : {};
