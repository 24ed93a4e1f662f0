import { type PinContent } from '@heuristor/contracts';
import { type InvestigationSession } from '../../investigation/investigationSession';
import { addressOf } from '../../investigation/addresses';
import { type SheetSession } from '../../investigation/sheetSession';
import { tell } from '../../ui/noticeStore';

/** Opens the page of a picture as it was: its traces, its interval, its runs, its cursors. What is there no more is said. */
export async function goThere(
  session: InvestigationSession,
  { of, look, runs }: PinContent,
  navigate: (address: string) => void,
): Promise<void> {
  const gone: string[] = [];
  if (of === 'trials') {
    const trials = await session.trials();
    if (trials.state.getState().trials.tables.some(({ id }) => id === look.page)) {
      trials.openTable(look.page);
      lookAgain(trials, look);
    } else gone.push('its table');
    navigate(addressOf(session.id, { path: 'trials' }));
  } else {
    const present = new Set(session.runs.filter(({ removed }) => !removed).map(({ id }) => id));
    const wanted = runs.filter(({ id }) => present.has(id));
    gone.push(...runs.filter(({ id }) => !present.has(id)).map(({ name }) => `run “${name}”`));
    navigate(addressOf(session.id, { path: '' }));
    // What is shown is a step of the bench, where it can be taken back.
    session.history.enter('');
    if (wanted.length > 0) session.runActions.show(new Set(wanted.map(({ id }) => id)));
    if (look.front !== null && present.has(look.front)) session.viewing.bringToFront(look.front);
    if (session.workings.pages.some(({ id }) => id === look.page)) {
      session.looking.open(look.page);
      lookAgain(session, look);
    } else gone.push('its page of traces');
  }
  if (gone.length > 0) tell({ kind: 'news', text: `Not there any more: ${gone.join(', ')}.` });
}

function lookAgain(sheet: SheetSession, look: PinContent['look']): void {
  const { sight, scales, reach, withZero, enlarged, cursors } = look;
  sheet.looking.change({ sight, scales, reach, withZero, enlarged });
  const [first, second] = cursors;
  if (first !== undefined) sheet.cursor.put(first);
  if (second !== undefined) sheet.cursor.putSecond(second);
}
