import { type InvestigationSummary, investigationPageSchema } from '@heuristor/contracts';
import { useCallback, useEffect, useRef, useState } from 'react';
import { getJson, sentenceOf } from '../api/client';

const typingMilliseconds = 150;

export interface Investigations {
  /** Those that have come so far, the one used last on top; null before any has. */
  list: InvestigationSummary[] | null;
  /** How many there are of them in all. */
  total: number;
  fault: string | null;
  /** Fetches the next ones. */
  more(): Promise<void>;
  /** Fetches as many as are there anew. */
  refresh(): Promise<void>;
}

/** The investigations whose name holds a text, some at a time: after a school year there are a thousand. */
export function useInvestigations(search: string): Investigations {
  const [found, setFound] = useState<{ list: InvestigationSummary[]; total: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const wanted = search.trim();
  /** Answers to another search than the last one come too late. */
  const asked = useRef(wanted);
  const fetchFrom = useCallback(
    async (before: readonly InvestigationSummary[], count: number) => {
      try {
        const list = [...before];
        let total: number;
        do {
          const query = new URLSearchParams({ search: wanted, from: String(list.length) });
          const page = await getJson(`/investigations?${query.toString()}`, investigationPageSchema);
          const known = new Set(list.map(({ id }) => id));
          const fresh = page.investigations.filter(({ id }) => !known.has(id));
          list.push(...fresh);
          ({ total } = page);
          // What another screen has just used stands further up now, and comes with the next look at all of them.
          if (fresh.length === 0) break;
        } while (list.length < Math.min(count, total));
        if (asked.current !== wanted) return;
        setFound({ list, total });
        setFault(null);
      } catch (error) {
        if (asked.current === wanted) setFault(sentenceOf(error));
      }
    },
    [wanted],
  );
  const isFirst = useRef(true);
  useEffect(() => {
    asked.current = wanted;
    const timer = setTimeout(() => void fetchFrom([], 1), isFirst.current ? 0 : typingMilliseconds);
    isFirst.current = false;
    return () => clearTimeout(timer);
  }, [fetchFrom, wanted]);
  const list = found?.list ?? null;
  return {
    list,
    total: found?.total ?? 0,
    fault,
    more: () => fetchFrom(list ?? [], (list?.length ?? 0) + 1),
    refresh: () => fetchFrom([], list?.length ?? 1),
  };
}
