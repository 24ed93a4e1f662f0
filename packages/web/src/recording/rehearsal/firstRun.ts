import { type Device } from '@heuristor/contracts';
import { create } from 'zustand';
import { openStrip } from '../../stage/stripState';

/** The stand-in that a first run is tried on where there is a choice: something that swings. */
const usual = 'buoy';

/** A simulated device that nobody uses; null where there is none. */
export function usualStandIn(devices: readonly Device[]): Device | null {
  const free = devices.filter(
    ({ stage, use, present, waiting }) => stage !== null && use === null && present && !waiting,
  );
  return free.find(({ stage }) => stage?.apparatus === usual) ?? free.at(0) ?? null;
}

/** The investigation in which somebody is led through a first run; null where nobody is. */
export const useFirstRun = create<{ investigation: string | null }>(() => ({ investigation: null }));

/** Leads through a first run on a simulated apparatus, which stands on the bench from now on. */
export function beginFirstRun(investigation: string): void {
  openStrip(true);
  useFirstRun.setState({ investigation });
}

export const endFirstRun = (): void => useFirstRun.setState({ investigation: null });
