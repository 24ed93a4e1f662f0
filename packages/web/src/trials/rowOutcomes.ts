import {
  type OpenedResult,
  type StoredEvaluation,
  type StoredOutcome,
  openedEvaluation,
} from '@heuristor/core';

/** What the workings say of a run, as a table reads it. */
export interface RunOutcome {
  results: ReadonlyMap<string, OpenedResult>;
  outcomes: Readonly<Record<string, StoredOutcome>>;
}

/** @param entry of the sheet @param field one of its results */
export const placeOf = (entry: string, field: string): string => `${entry}/${field}`;

export function runOutcome(stored: StoredEvaluation): RunOutcome {
  return {
    results: new Map(openedEvaluation(stored).map((result) => [placeOf(result.entry, result.field), result])),
    outcomes: stored.sheets[0] ?? {},
  };
}
