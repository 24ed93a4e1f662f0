import { type InvestigationSession } from '../../investigation/investigationSession';
import { type SheetSession } from '../../investigation/sheetSession';
import { pageIn } from '../../traces/pages/pages';
import { pinContent } from './pinContent';
import { tableOf } from './tableOf';

/**
 * Keeps what is seen on the bench, or on a table of trials, in the notebook.
 * @param again the block that shows it in place of what it showed before; null for a block of its own
 * @returns the id of the block
 * @throws Error that says why it cannot be kept
 */
export async function pinSeen(
  session: InvestigationSession,
  seen: SheetSession,
  again: string | null,
): Promise<string> {
  // As it is in the moment of the press, however long the notebook takes to open.
  const content = pinContent(seen, calledOf(session, seen));
  const notebook = await session.notebook();
  return again === null ? notebook.pin(content, titleOf(content)) : notebook.pinAnew(again, content);
}

function calledOf(session: InvestigationSession, seen: SheetSession): string {
  if (seen.isOfTables) return tableOf(seen)?.name || 'Trials';
  const { pages } = session.workings;
  const page = pageIn(session.workings, seen.onPage.page);
  return pages.length === 1 ? 'Traces' : `Page ${pages.indexOf(page) + 1}`;
}

/** A picture of one run is called by it; of several, by the page. */
const titleOf = ({ runs, page }: ReturnType<typeof pinContent>): string =>
  runs.length === 1 ? runs[0].name : page;
