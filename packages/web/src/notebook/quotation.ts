import { type Plan, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type ResultRef, halfWidth, resultRef } from '@heuristor/core';
import { conditionWithUnit } from '../runs/conditions/conditionText';
import { type RunOutcome, placeOf } from '../trials/rowOutcomes';
import { resultWithUnit } from '../ui/numberText';

/** A value that a text quotes: a result of a run, or what was typed of it. */
export interface Quotation {
  of: 'result' | 'condition';
  run: string;
  /** The entry of a result; '' of a condition. */
  entry: string;
  /** Which of the results of the entry, or which condition. */
  key: string;
}

export type Quoted =
  | { kind: 'value'; text: string; name: string }
  | { kind: 'waiting' }
  /** It is there no more, or cannot be worked out. */
  | { kind: 'missing'; why: string };

/** A result as it is written, in the unit that was chosen for it. */
export function resultText(
  outcome: RunOutcome,
  workings: WorkingsDocument,
  entry: string,
  key: string,
): string | null {
  const result = outcome.results.get(placeOf(entry, key));
  if (result === undefined) return null;
  const { quantity, roundTo } = result;
  const { value, unit } = quantity;
  const chosen = workings.entries.find(({ id }) => id === entry)?.shownIn?.[key];
  return resultWithUnit(
    { value, unit, halfWidth: halfWidth(quantity), roundTo: roundTo === null ? null : Number(roundTo) },
    chosen,
  );
}

interface Known {
  workings: WorkingsDocument;
  plan: Pick<Plan, 'conditions'>;
  runs: readonly Run[];
  outcomeOf(run: string): RunOutcome | undefined;
  names: Readonly<Record<ResultRef, string>>;
}

/** What a quotation says now. */
export function quotedNow({ of, run: id, entry, key }: Quotation, known: Known): Quoted {
  const run = known.runs.find((one) => one.id === id);
  if (run === undefined || run.removed) return { kind: 'missing', why: 'the run was removed' };
  if (of === 'condition') {
    const column = known.plan.conditions.find((one) => one.key === key);
    const said = run.conditions[key];
    if (column === undefined || said === undefined)
      return { kind: 'missing', why: 'it is not said of the run any more' };
    return { kind: 'value', text: conditionWithUnit(said, column), name: column.name };
  }
  const found = known.workings.entries.find((one) => one.id === entry);
  if (found === undefined) return { kind: 'missing', why: 'its entry was removed from the workings' };
  const outcome = known.outcomeOf(id);
  if (outcome === undefined) return { kind: 'waiting' };
  const text = resultText(outcome, known.workings, entry, key);
  if (text !== null) return { kind: 'value', text, name: known.names[resultRef(entry, key)] ?? '' };
  const said = outcome.outcomes[entry];
  return {
    kind: 'missing',
    why: said?.kind === 'refused' ? said.sentence : 'the entry has no such result any more',
  };
}
