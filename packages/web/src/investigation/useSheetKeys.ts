import { useHotkeys } from 'react-hotkeys-hook';
import { type SheetSession } from './sheetSession';

const ownEscape = '.dropdown-toggle, .dropdown-menu, .modal, .popover';

/** Keys that every page with a sheet has: a step back and again, all in sight, the view before, something to work out, and putting away what is open. */
export function useSheetKeys(sheet: SheetSession): void {
  useHotkeys('mod+z', () => sheet.history.undo(), { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', () => sheet.history.redo(), { preventDefault: true });
  useHotkeys('f', () => sheet.frameAll());
  // As it is printed on the key, wherever the keyboard has it.
  useHotkeys('/', () => sheet.dialogs.ask('workOut', true), { preventDefault: true, useKey: true });
  useHotkeys('b', () => sheet.looking.back());
  useHotkeys('escape', ({ target }) => {
    // What closes a menu, a dialog or an editor closes nothing else.
    if (target instanceof Element && target.closest(ownEscape) !== null) return;
    if (!sheet.viewing.putAway()) sheet.cursor.lift();
  });
}
