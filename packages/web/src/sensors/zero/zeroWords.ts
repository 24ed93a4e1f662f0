import { type Zero } from '@heuristor/contracts';
import { formatDistanceToNow } from 'date-fns';
import { shortText } from '../../ui/numberText';

export interface ZeroedChannel {
  symbol: string;
  /** The unit in which its zero is kept. */
  unit: string;
  zero: Zero;
}

/**
 * What a card says of the zero of a channel: when it was taken, and how still it was, as the standard deviation of its second.
 * @param isNamed whether its symbol stands before, to tell it from others of the device
 */
export function zeroWords({ symbol, unit, zero: { at, spread } }: ZeroedChannel, isNamed: boolean): string {
  const when = formatDistanceToNow(new Date(at), { addSuffix: true });
  return `${isNamed ? `${symbol} zeroed` : 'Zeroed'} ${when}, still within ${shortText(spread, 2)} ${unit}`.trim();
}
