import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import { resultNames } from '../workings/edits';
import { type RunOutcome } from './rowOutcomes';

interface Inputs {
  workings: WorkingsDocument;
  runs: readonly Run[];
  outcomes: ReadonlyMap<string, RunOutcome>;
}

/** How results are called, as on the sheet. */
export function resultTitles({ workings, outcomes, runs }: Inputs): Record<string, string> {
  // The run of which most is known tells what every entry gives.
  const known: Record<string, { kind: 'results'; results: { key: string; name: string }[] }> = {};
  for (const { id } of runs)
    for (const { entry, field, name } of outcomes.get(id)?.results.values() ?? []) {
      const { results } = (known[entry] ??= { kind: 'results', results: [] });
      if (!results.some(({ key }) => key === field)) results.push({ key: field, name });
    }
  return resultNames(workings, known, 't');
}
