import { type Entry, entrySentence } from '@heuristor/core';
import { tell } from '../../ui/noticeStore';
import { type SheetSession } from '../../investigation/sheetSession';
import { withoutEntry } from '../edits';
import { listed, usersOf } from './users';

/** Removes an entry, and says which others cannot be worked out without it. */
export function removeEntry(
  session: Pick<SheetSession, 'workings' | 'changeWorkings' | 'history'>,
  entry: Entry,
  nameOf: (reference: string) => string,
): void {
  const users = usersOf(session.workings, entry.id);
  const place = session.workings.entries.findIndex(({ id }) => id === entry.id);
  session.changeWorkings((sheet) => withoutEntry(sheet, entry.id));
  if (users.length === 0) return;
  const removed = session.workings;
  const calledAs = (one: Entry) => (one.name === '' ? entrySentence(one, nameOf) || one.kind : one.name);
  const called = entry.kind === 'region' ? `Region ${entry.letter}` : `“${calledAs(entry)}”`;
  tell({
    kind: 'news',
    text: `${called} was used by ${listed(users.map((user) => `“${calledAs(user)}”`))}, which cannot be worked out without it.`,
    action: {
      label: 'Put it back',
      run: () => {
        // Where nothing else was done meanwhile, that is the step back; else it is put where it was, and the rest stays.
        if (session.workings === removed) session.history.undo();
        else
          session.changeWorkings((sheet) =>
            sheet.entries.some(({ id }) => id === entry.id) ? sheet : withEntryAt(sheet, entry, place),
          );
      },
    },
  });
}

const withEntryAt = <T extends { entries: Entry[] }>(sheet: T, entry: Entry, place: number): T => ({
  ...sheet,
  entries: [...sheet.entries.slice(0, place), entry, ...sheet.entries.slice(place)],
});
