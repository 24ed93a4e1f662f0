import { useHotkeys } from 'react-hotkeys-hook';
import { type SheetSession } from './sheetSession';

/** Keys that every page with a sheet has: a step back and again, all in sight, the view before, and putting away what is open. */
export function useSheetKeys(sheet: SheetSession): void {
  useHotkeys('mod+z', () => sheet.history.undo(), { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', () => sheet.history.redo(), { preventDefault: true });
  useHotkeys('f', () => sheet.frameAll());
  useHotkeys('b', () => sheet.looking.back());
  useHotkeys('escape', () => {
    if (!sheet.viewing.putAway()) sheet.cursor.lift();
  });
}
