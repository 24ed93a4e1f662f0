import { type InvestigationOrder, type InvestigationSummary } from '@heuristor/contracts';
import { differenceInCalendarDays } from 'date-fns';

export interface Group {
  title: string;
  investigations: InvestigationSummary[];
}

/** Days back that a heading reaches, in calendar days. */
const reaches: readonly [days: number, title: string][] = [
  [0, 'Today'],
  [1, 'Yesterday'],
  [7, 'In the last week'],
  [31, 'In the last month'],
];

function lastUse(usedAt: string, now: Date): string {
  const days = differenceInCalendarDays(now, new Date(usedAt));
  return reaches.find(([most]) => days <= most)?.[1] ?? 'Before';
}

/** Investigations under headings, in the order in which they come: by when they were used last, or by class or theme. */
export function grouped(
  all: readonly InvestigationSummary[],
  by: InvestigationOrder,
  now = new Date(),
): Group[] {
  const groups = new Map<string, Group>();
  for (const one of all) {
    const title = by === 'use' ? lastUse(one.usedAt, now) : one.theme === '' ? 'Without a theme' : one.theme;
    // Whoever types a theme again writes it as it comes.
    const key = title.toLowerCase();
    const group = groups.get(key) ?? { title, investigations: [] };
    group.investigations.push(one);
    groups.set(key, group);
  }
  return [...groups.values()];
}
