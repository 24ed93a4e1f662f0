import { type TrialTable } from '@heuristor/contracts';
import { type ReactNode, createContext, useContext } from 'react';
import { useStore } from 'zustand';
import { SheetProvider } from '../investigation/context';
import { tableIn } from './trialsDocument';
import { type TrialsSession, type TrialsState } from './trialsSession';

const TrialsContext = createContext<TrialsSession | null>(null);

/** The trials that these parts of a page work on. Entries and plots under it are those of the table that is looked at. */
export function TrialsProvider({ trials, children }: { trials: TrialsSession; children: ReactNode }) {
  return (
    <TrialsContext value={trials}>
      <SheetProvider sheet={trials}>{children}</SheetProvider>
    </TrialsContext>
  );
}

export function useTrials(): TrialsSession {
  const trials = useContext(TrialsContext);
  if (trials === null) throw new Error('this component stands outside the trials');
  return trials;
}

/** The table that is looked at; undefined where there is none. */
export const useShownTable = (): TrialTable | undefined =>
  useTrialsState(({ trials, open }) => tableIn(trials, open));

/** A part of their state; the component hears of nothing else. */
export const useTrialsState = <T,>(part: (state: TrialsState) => T): T => useStore(useTrials().state, part);
