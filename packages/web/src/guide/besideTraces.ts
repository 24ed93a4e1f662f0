import { create } from 'zustand';

/** What stands in the right column beside the traces. */
export type Beside = 'workings' | 'guide';

const key = 'guide-beside-traces';

/** Investigations whose guide stands beside the traces, in this tab. */
const useGuided = create<{ guided: readonly string[] }>(() => ({
  guided: (sessionStorage.getItem(key) ?? '').split(',').filter((id) => id !== ''),
}));
useGuided.subscribe(({ guided }) => sessionStorage.setItem(key, guided.join()));

/** What stands beside the traces of an investigation. */
export const useBesideTraces = (investigation: string): Beside =>
  useGuided(({ guided }) => (guided.includes(investigation) ? 'guide' : 'workings'));

let wantsFocus = false;

/** Whether what was shown last wants the focus; asked once. */
export function takeFocus(): boolean {
  const wanted = wantsFocus;
  wantsFocus = false;
  return wanted;
}

export function showBeside(investigation: string, shown: Beside): void {
  wantsFocus = true;
  useGuided.setState(({ guided }) => ({
    guided: [...guided.filter((id) => id !== investigation), ...(shown === 'guide' ? [investigation] : [])],
  }));
}
