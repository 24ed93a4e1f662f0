import {
  type Away,
  type AwayRun,
  type KeptMessage,
  type KeptRun,
  type SampleFrame,
} from '@heuristor/contracts';
import { type LinkedDevice } from '../link/device';
import { type AwayRunModel } from '../models/awayRun';

/** What is known of the runs that one device keeps. */
export interface Holding {
  device: LinkedDevice;
  /** What it said last, and when, in ms. */
  said: KeptMessage | null;
  at: number;
  rows: AwayRunModel[];
  /** Readings stored of each run. */
  stored: Map<number, number>;
  fetching: Fetching | null;
}

/** A fetch that is under way. */
export interface Fetching {
  id: number;
  isCancelled: boolean;
  /** Takes the readings that are waited for. */
  take: ((frame: SampleFrame) => void) | null;
  /** Ends the wait for them. */
  leave: (() => void) | null;
}

/** Takes a device for the fetch of one run. */
export function claim(holding: Holding, { id }: Pick<AwayRunModel, 'id'>): Fetching {
  const fetching: Fetching = { id, isCancelled: false, take: null, leave: null };
  holding.fetching = fetching;
  return fetching;
}

/** Readings of all streams of a run. */
const countOf = ({ counts }: KeptRun) => Object.values(counts).reduce((sum, count) => sum + count, 0);
/** Whether a device still takes readings for a run, or waits to. */
export const goesOn = ({ state }: KeptRun) => state === 'waiting' || state === 'recording';

/** What a device keeps, as screens see it; null where it has not said yet. */
export function presentHolding({ device, said, at, rows, stored, fetching }: Holding): Away | null {
  if (said === null) return null;
  const runs = said.runs.map((kept): AwayRun => {
    const row = rows.find(({ id }) => id === kept.id);
    const isBegun = kept.state !== 'waiting';
    return {
      id: kept.id,
      investigation: row?.investigationId ?? null,
      state: kept.state,
      begunAt:
        isBegun && kept.begun !== null ? new Date(at - (said.clock - kept.begun) * 1000).toISOString() : null,
      clockLost: isBegun && kept.begun === null,
      count: countOf(kept),
      stored: stored.get(kept.id) ?? 0,
      seconds: row?.seconds ?? null,
      isFetching: fetching?.id === kept.id,
      discarded: row?.discardedAt != null,
      run: row?.runId ?? null,
    };
  });
  return { keeps: device.description.keeps ?? 0, room: said.room, runs };
}
