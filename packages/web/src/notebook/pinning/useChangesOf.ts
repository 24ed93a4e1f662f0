import { type PinContent, type PinnedResult } from '@heuristor/contracts';
import { useEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { useNotebook } from '../context';
import { quotedNow } from '../quotation';

/** A result that is another one than when it was pinned. */
export interface Change {
  result: PinnedResult;
  /** As it is now; null where it is there no more. */
  now: string | null;
  /** In a few words. */
  words: string;
}

/** What has changed of the results that stood beside a picture since it was pinned. */
export function useChangesOf({ results }: PinContent): readonly Change[] {
  const notebook = useNotebook();
  const { workings, plan, runs } = useStore(notebook.host.documents);
  const outcomes = useStore(notebook.values.state, (state) => state.outcomes);
  const wanted = useMemo(
    () => [...new Set(results.flatMap(({ run }) => (run === null ? [] : [run])))],
    [results],
  );
  useEffect(() => {
    const stops = wanted.map((run) => notebook.values.need(run));
    return () => stops.forEach((stop) => stop());
  }, [notebook, wanted]);
  return useMemo(
    () =>
      results.flatMap((result): Change[] => {
        const { run, entry, key, text } = result;
        if (run === null) return [];
        const outcome = outcomes.get(run);
        // What it was called then stands in the pin.
        const known = { workings, plan, runs, outcomeOf: () => outcome, names: {} };
        const now = quotedNow({ of: 'result', run, entry, key }, known);
        if (now.kind === 'waiting' || (now.kind === 'value' && now.text === text)) return [];
        return [
          now.kind === 'value'
            ? { result, now: now.text, words: `${result.name} was ${text}, and is ${now.text}` }
            : { result, now: null, words: `${result.name} was ${text}; ${now.why}` },
        ];
      }),
    [results, outcomes, workings, plan, runs],
  );
}
