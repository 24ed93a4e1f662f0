import { bringIn } from './ImportDialog';
import { type InvestigationSession } from '../investigation/investigationSession';
import { tell } from '../ui/noticeStore';

type DialogHost = Pick<InvestigationSession, 'dialogs'>;

/** Whether a text that was copied holds columns of numbers: two lines at least, with digits. */
export const holdsColumns = (text: string): boolean =>
  /\d/.test(text) && text.trim().split(/\r?\n/).length > 1;

/** Brings in what was copied elsewhere, in the way of a file. */
export function bringInText(session: DialogHost, text: string): void {
  bringIn(session, new File([text], 'pasted columns.csv', { type: 'text/csv', lastModified: Date.now() }));
}

/** Brings in what stands on the clipboard, where the browser lets a page look at it. */
export async function bringInPasted(session: DialogHost): Promise<void> {
  try {
    const text = await navigator.clipboard.readText();
    if (holdsColumns(text)) bringInText(session, text);
    else
      tell({
        kind: 'fault',
        text: 'The clipboard holds no columns of numbers. Copy some rows of a table first.',
      });
  } catch {
    tell({
      kind: 'fault',
      text: 'The browser does not let this page look at the clipboard. Press Ctrl V here instead.',
    });
  }
}
