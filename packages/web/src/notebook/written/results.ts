import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type ResultRef, resultRef } from '@heuristor/core';
import { countedRuns } from '../../trials/counted';
import { type RunOutcome } from '../../trials/rowOutcomes';
import { resultTitles } from '../../trials/resultTitles';
import { type Written } from './table';
import { resultText } from '../quotation';

interface Inputs {
  workings: WorkingsDocument;
  runs: readonly Run[];
  outcomes: ReadonlyMap<string, RunOutcome>;
}

/** What the workings say of every run that counts: a row for each, a column for each main result. */
export function writtenResults({ workings, outcomes, runs: all }: Inputs): Written & { isWaiting: boolean } {
  const runs = countedRuns(all);
  const titles = resultTitles({ workings, outcomes, runs });
  const columns = workings.entries.flatMap(({ id }) => {
    const keys = runs.flatMap((run) =>
      [...(outcomes.get(run.id)?.results.values() ?? [])]
        .filter(({ entry, main }) => entry === id && main)
        .map(({ field }) => field),
    );
    return [...new Set(keys)].map((key) => ({
      entry: id,
      key,
      title: titles[resultRef(id, key) as ResultRef],
    }));
  });
  return {
    head: ['run', ...columns.map(({ title }) => title)],
    rows: runs.map((run) => {
      const outcome = outcomes.get(run.id);
      return [
        `${run.number} · ${run.name}`,
        ...columns.map(({ entry, key }) =>
          outcome === undefined ? '…' : (resultText(outcome, workings, entry, key) ?? '–'),
        ),
      ];
    }),
    isWaiting: runs.some(({ id }) => !outcomes.has(id)),
  };
}
