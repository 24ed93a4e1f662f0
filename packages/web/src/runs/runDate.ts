import { type Run } from '@heuristor/contracts';

/** When a run began, by the clock that hung there. */
export const runDate = (
  { startedAt, timeZone }: Pick<Run, 'startedAt' | 'timeZone'>,
  timeStyle: 'short' | 'medium' = 'short',
): string =>
  new Intl.DateTimeFormat('en-GB', {
    dateStyle: 'medium',
    timeStyle,
    ...(timeZone === null ? {} : { timeZone }),
  }).format(new Date(startedAt));
