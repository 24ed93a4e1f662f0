import { type Channel } from '@heuristor/contracts';
import { format } from 'date-fns';
import { shortText } from '../ui/numberText';
import { rateWords } from '../ui/rateText';

const shown = (value: number) => shortText(value, 4);

/** How often a channel was read, in words. */
export const samplingWords = (sampling: Channel['sampling']): string =>
  sampling.kind === 'regular'
    ? rateWords(1 / sampling.interval)
    : sampling.kind === 'events'
      ? 'every edge'
      : 'at irregular times';

/** What was made of the readings of a sensor before they were stored, in words; nothing where they are as it sent them. */
export function appliedWords(applied: Channel['applied']): string[] {
  if (applied === null) return [];
  const { zero, zeroedAtStart, twoPoint, reversed, numbers } = applied;
  return [
    zero === null
      ? null
      : `zero at ${shown(zero.offset)}${zeroedAtStart ? ' from its own beginning' : ''}${
          zero.at === '' ? '' : `, ${format(new Date(zero.at), 'd MMM HH:mm')}`
        }`,
    twoPoint === null ? null : `scale × ${shown(twoPoint.gain)} by two values`,
    reversed ? 'sign reversed' : null,
    ...Object.entries(numbers).map(([key, value]) => `${key} ${shown(value)}`),
  ].filter((part) => part !== null);
}
