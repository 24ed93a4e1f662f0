import { type PinContent } from '@heuristor/contracts';
import { format, isSameDay } from 'date-fns';
import { type Written } from '../written/table';

/** When something was pinned: the time of today, or the day with it. */
export function pinnedWhen(made: string, now = new Date()): string {
  const then = new Date(made);
  return isSameDay(then, now) ? format(then, 'HH:mm') : format(then, 'd MMM yyyy, HH:mm');
}

/** A run of a picture with what was said of it. */
export const runWords = ({ number, name, group, conditions }: PinContent['runs'][number]): string =>
  `run ${number} · ${name}${group === '' ? '' : ` (${group})`}${conditions.length === 0 ? '' : `: ${conditions.join(', ')}`}`;

/** The results that stood beside a picture, as a table. */
export function pinnedTable({ runs, results }: PinContent): Written {
  if (runs.length < 2)
    return { head: ['result', 'value'], rows: results.map(({ name, text }) => [name, text]) };
  return {
    head: ['run', 'result', 'value'],
    rows: results.map(({ run, name, text }) => {
      const of = runs.find(({ id }) => id === run);
      return [of === undefined ? '' : `${of.number} · ${of.name}`, name, text];
    }),
  };
}
