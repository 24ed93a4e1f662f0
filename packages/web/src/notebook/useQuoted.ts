import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type ResultRef } from '@heuristor/core';
import { useEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { resultTitles } from '../trials/resultTitles';
import { type RunOutcome } from '../trials/rowOutcomes';
import { useNotebook } from './context';
import { type Quotation, type Quoted, quotedNow } from './quotation';

/** What a quotation says now; it follows the workings. */
export function useQuoted(quotation: Quotation): Quoted {
  const notebook = useNotebook();
  const { of, run, entry, key } = quotation;
  useEffect(() => (of === 'result' ? notebook.values.need(run) : undefined), [notebook, of, run]);
  const documents = useStore(notebook.host.documents);
  const outcome = useStore(notebook.values.state, ({ outcomes }) => outcomes.get(run));
  const { workings, plan, runs } = documents;
  const found = runs.find(({ id }) => id === run);
  return useMemo(
    () =>
      quotedNow(
        { of, run, entry, key },
        {
          workings,
          plan,
          runs,
          outcomeOf: () => outcome,
          names: outcome === undefined || found === undefined ? {} : namesOf(workings, outcome, found),
        },
      ),
    [of, run, entry, key, workings, plan, runs, found, outcome],
  );
}

/** How the results of a run are called. */
export const namesOf = (
  workings: WorkingsDocument,
  outcome: RunOutcome,
  run: Run,
): Record<ResultRef, string> =>
  resultTitles({ workings, outcomes: new Map([[run.id, outcome]]), runs: [run] });
