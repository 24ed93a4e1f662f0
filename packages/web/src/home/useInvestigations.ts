import {
  type InvestigationList,
  type InvestigationOrder,
  type InvestigationSummary,
  investigationPageSchema,
} from '@heuristor/contracts';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { getJson, sentenceOf } from '../api/client';

const typingMilliseconds = 150;

export interface Investigations {
  /** Those that have come so far, the one used last on top; null before any has. */
  list: InvestigationSummary[] | null;
  /** How many there are of them in all. */
  total: number;
  fault: string | null;
  /** Fetches the next ones. */
  more(): Promise<unknown>;
  /** Fetches as many as are there anew. */
  refresh(): Promise<unknown>;
}

/** A text once nobody has typed for a moment. */
function useTyped(text: string): string {
  const [typed, setTyped] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setTyped(text), typingMilliseconds);
    return () => clearTimeout(timer);
  }, [text]);
  return typed;
}

/** The investigations in which a text is found, some at a time: after a school year there are a thousand. */
export function useInvestigations(
  search: string,
  of: InvestigationList = 'all',
  by: InvestigationOrder = 'use',
): Investigations {
  const wanted = useTyped(search.trim());
  const { data, error, fetchNextPage, refetch } = useInfiniteQuery({
    queryKey: ['/investigations', wanted, of, by],
    initialPageParam: 0,
    queryFn: ({ pageParam }) => {
      const query = new URLSearchParams({ search: wanted, of, by, from: String(pageParam) });
      return getJson(`/investigations?${query.toString()}`, investigationPageSchema);
    },
    getNextPageParam: ({ investigations, total }, _, from) => {
      const reached = from + investigations.length;
      return investigations.length > 0 && reached < total ? reached : undefined;
    },
    placeholderData: keepPreviousData,
  });
  // What another screen has used between one page and the next stands on both.
  const all = data?.pages.flatMap(({ investigations }) => investigations);
  const list = all?.filter(({ id }, i) => all.findIndex((other) => other.id === id) === i) ?? null;
  return {
    list,
    total: data?.pages.at(-1)?.total ?? 0,
    fault: error === null ? null : sentenceOf(error),
    more: () => fetchNextPage(),
    refresh: () => refetch(),
  };
}
