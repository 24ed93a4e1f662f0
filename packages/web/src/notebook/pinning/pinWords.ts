import { format, isSameDay } from 'date-fns';

/** When something was pinned: the time of today, or the day with it. */
export function pinnedWhen(made: string, now = new Date()): string {
  const then = new Date(made);
  return isSameDay(then, now) ? format(then, 'HH:mm') : format(then, 'd MMM yyyy, HH:mm');
}
