import { type WorkingsDocument, mostOnSheet, mostSheetBytes, workingsSchema } from '@heuristor/contracts';

/** What a sheet holds, in numbers that have a limit. */
const counts: readonly [
  what: string,
  most: number,
  count: (sheet: WorkingsDocument) => number,
  mend: string,
][] = [
  [
    'entries',
    mostOnSheet.entries,
    ({ entries }) => entries.length,
    'Remove some, or begin another investigation.',
  ],
  ['pages', mostOnSheet.pages, ({ pages }) => pages.length, 'Remove one first.'],
  [
    'traces on a page',
    mostOnSheet.panels,
    ({ pages }) => Math.max(0, ...pages.map(({ panels }) => panels?.length ?? 0)),
    'Take one off, or begin a new page.',
  ],
  [
    'intervals set aside in one quantity of a run',
    mostOnSheet.ranges,
    ({ aside }) => aside.reduce((most, { ranges }) => Math.max(most, ranges.length), 0),
    'Set aside neighbouring readings together.',
  ],
  [
    'quantities of runs with readings set aside',
    mostOnSheet.aside,
    ({ aside }) => aside.length,
    'Count some of them again first.',
  ],
  [
    'runs that are hidden or drawn otherwise',
    mostOnSheet.runs,
    ({ runs }) => runs.length,
    'Show some of them first.',
  ],
  ['runs moved in time', mostOnSheet.shifts, ({ shifts }) => shifts.length, 'Put some of them back first.'],
];

/**
 * Why a change makes a sheet that could not be stored; null where it can be, or where it was as full before.
 * @param isMoving while a hand moves something, it is only counted: what is moved keeps its shape
 */
export function faultOfSheet(
  before: WorkingsDocument,
  after: WorkingsDocument,
  isMoving = false,
): string | null {
  for (const [what, most, count, mend] of counts) {
    const now = count(after);
    if (now > most && now > count(before))
      return `This would make ${now} ${what}; ${most} can be kept. ${mend} Nothing was changed.`;
  }
  if (isMoving) return null;
  const size = bytesOf(after);
  if (size > mostSheetBytes && size > bytesOf(before))
    return `This would make a sheet of ${(size / 1e6).toFixed(1)} MB; ${mostSheetBytes / 1e6} MB can be kept. Remove entries, labels or what was set aside first. Nothing was changed.`;
  const issue = workingsSchema.safeParse(after).error?.issues[0];
  if (issue === undefined || workingsSchema.safeParse(before).error !== undefined) return null;
  return `This could not be kept (${issue.path.join(' ')}: ${issue.message}). Nothing was changed.`;
}

/** As it is sent: most letters are one byte, no letter of a text more than three. */
const bytesOf = (sheet: WorkingsDocument): number => new TextEncoder().encode(JSON.stringify(sheet)).length;
