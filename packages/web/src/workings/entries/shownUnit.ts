import { type Entry, type Unit, ucumCode, unitShown } from '@heuristor/core';
import { type ShownOutcome, type ShownResult } from '../../workers/protocol';

/** The unit that a formula was told to come out in, or that somebody chose, or else one that reads well. */
export function shownUnitOf(entry: Entry, result: ShownResult): Unit {
  const isGiven = entry.kind === 'calculation' && entry.unit !== '';
  return unitShown(result, entry.shownIn?.[result.key] ?? (isGiven ? ucumCode(result.unit) : undefined));
}

/** The result of an outcome that stands for all of it; undefined where it has none. */
export const mainOf = (outcome: ShownOutcome | undefined): ShownResult | undefined =>
  outcome?.kind === 'results' ? (outcome.results.find(({ main }) => main) ?? outcome.results[0]) : undefined;
