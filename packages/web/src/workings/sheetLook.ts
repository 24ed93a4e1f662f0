import { create } from 'zustand';

/** What of a sheet is seen: all entries, those alone that have results, or the results as a table over the runs. */
export type SheetLook = 'all' | 'results' | 'table';

const key = 'sheet-look';
const looks: readonly SheetLook[] = ['all', 'results', 'table'];

export const useSheetLook = create<{ look: SheetLook }>(() => ({
  look: looks.find((look) => look === localStorage.getItem(key)) ?? 'all',
}));

export function setSheetLook(look: SheetLook): void {
  localStorage.setItem(key, look);
  useSheetLook.setState({ look });
}
