import { type WorkingsDocument } from '@heuristor/contracts';
import { type Condition, type Evaluator, type StoredEvaluation, storedEvaluation } from '@heuristor/core';

/** What is asked of a run: what sheets say of it, together. */
export interface OutcomesQuestion {
  /** Sheets of several people are evaluated together, so that what their results owe to the same readings is known. */
  sheets: readonly WorkingsDocument[];
  /** What was said of the run. */
  conditions: readonly Condition[];
  /** The entries that are asked for; all where nothing is said. */
  only?: readonly string[];
}

/**
 * What sheets say of a run, wherever it is held, with what its results owe to roots that other runs share and to its own readings.
 * @throws Refusal
 */
export function outcomesOf(
  evaluator: Evaluator,
  { sheets, conditions, only }: OutcomesQuestion,
): StoredEvaluation {
  evaluator.say(conditions);
  const wanted = only === undefined ? undefined : new Set(only);
  const evaluated = sheets.map((workings) => ({
    workings,
    outcomes: evaluator.evaluate(workings, wanted === undefined ? {} : { only: wanted }).outcomes,
    // Only what was taken one by one is rows for a table.
    ...(wanted === undefined ? { channels: evaluator.repeats() } : {}),
  }));
  return storedEvaluation(evaluator.run.id, evaluated);
}
