import { z } from 'zod';
import { type StoreApi, createStore } from 'zustand/vanilla';

export const tileLooks = ['number', 'pointer'] as const;
export type TileLook = (typeof tileLooks)[number];

const choiceSchema = z.object({
  /** What fills the screen in large digits; nothing was chosen where it is empty. */
  large: z.array(z.string()).max(12),
  /** What stands beside the traces. */
  beside: z.array(z.object({ key: z.string(), look: z.enum(tileLooks) })).max(6),
});
export type TileChoice = z.infer<typeof choiceSchema>;

const nothing: TileChoice = { large: [], beside: [] };
const memory = (investigation: string) => `digits ${investigation}`;

function remembered(investigation: string): TileChoice {
  try {
    return choiceSchema.parse(JSON.parse(localStorage.getItem(memory(investigation)) ?? 'null'));
  } catch {
    return nothing;
  }
}

const stores = new Map<string, StoreApi<TileChoice>>();

/** What somebody chose for an investigation at this machine, once. */
export function tileChoiceOf(investigation: string): StoreApi<TileChoice> {
  const known = stores.get(investigation);
  if (known !== undefined) return known;
  const store = createStore<TileChoice>(() => remembered(investigation));
  store.subscribe((choice) => localStorage.setItem(memory(investigation), JSON.stringify(choice)));
  stores.set(investigation, store);
  return store;
}

export const chooseLarge = (investigation: string, large: string[]): void =>
  tileChoiceOf(investigation).setState({ large });

/** Puts a tile beside the traces, in this look; null takes it away. */
export function chooseBeside(investigation: string, key: string, look: TileLook | null): void {
  const store = tileChoiceOf(investigation);
  const { beside } = store.getState();
  const isThere = beside.some((one) => one.key === key);
  if (look === null) store.setState({ beside: beside.filter((one) => one.key !== key) });
  else if (isThere) store.setState({ beside: beside.map((one) => (one.key === key ? { key, look } : one)) });
  else store.setState({ beside: [...beside, { key, look }].slice(-6) });
}
