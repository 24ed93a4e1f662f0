import { type EntryKindKey } from '@heuristor/core';
import { useEffect, useState } from 'react';
import { create } from 'zustand';

interface UnfoldingState {
  /** Kinds whose cards were left unfolded; a new card of them begins so. */
  kinds: ReadonlySet<string>;
  /** All cards at once, as they were told last. */
  all: { isOpen: boolean } | null;
}

const key = 'unfolded-kinds';

const useUnfoldings = create<UnfoldingState>(() => ({
  kinds: new Set((localStorage.getItem(key) ?? '').split(',').filter((kind) => kind !== '')),
  all: null,
}));
useUnfoldings.subscribe(({ kinds }) => localStorage.setItem(key, [...kinds].join()));

/** Every card of every sheet unfolds to all it says, or folds to its line. */
export const unfoldAll = (isOpen: boolean): void => useUnfoldings.setState({ all: { isOpen } });

function remember(kind: EntryKindKey, isOpen: boolean): void {
  const kinds = new Set(useUnfoldings.getState().kinds);
  if (isOpen) kinds.add(kind);
  else kinds.delete(kind);
  useUnfoldings.setState({ kinds });
}

/**
 * Whether a card is unfolded. It begins as the last one of its kind was left; what was pressed on it since is its own.
 *
 * @param isFolded sheets of former versions say of an entry that it was folded
 */
export function useUnfolding(kind: EntryKindKey, isFolded: boolean, isNew: boolean) {
  const [isOpen, setOpen] = useState(() => isNew || (!isFolded && useUnfoldings.getState().kinds.has(kind)));
  const all = useUnfoldings((state) => state.all);
  const [told, setTold] = useState(all);
  useEffect(() => {
    if (all === told || all === null) return;
    setTold(all);
    setOpen(all.isOpen);
  }, [all, told]);
  return {
    isOpen,
    /** Without words about the others of its kind: it had to be opened. */
    open: () => setOpen(true),
    toggle: () => {
      remember(kind, !isOpen);
      setOpen(!isOpen);
    },
  };
}
