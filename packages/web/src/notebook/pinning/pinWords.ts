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

/** The results that stood beside a picture: of several runs a row each, of one a row for each result. */
export function pinnedTable({ runs, results }: Pick<PinContent, 'runs' | 'results'>): Written {
  if (runs.length < 2)
    return { head: ['result', 'value'], rows: results.map(({ name, text }) => [name, text]) };
  const names = [...new Set(results.map(({ name }) => name))];
  const shown = runs.filter(({ id }) => results.some(({ run }) => run === id));
  return {
    head: ['run', ...names],
    rows: shown.map(({ id, number, name: called }) => [
      `${number} · ${called}`,
      ...names.map((name) => results.find((one) => one.run === id && one.name === name)?.text ?? '–'),
    ]),
  };
}
