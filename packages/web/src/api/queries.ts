import { QueryClient, useQuery } from '@tanstack/react-query';
import { type z } from 'zod';
import { getJson, sentenceOf } from './client';

/**
 * What pages have asked the server, and what it said. The server is on this machine or in this room: a browser that believes to be
 * offline asks it all the same, and one that does not answer is shown at once. Nothing is shown from memory that another screen may have
 * changed meanwhile.
 */
export const queries = new QueryClient({
  defaultOptions: {
    queries: { networkMode: 'always', retry: false, gcTime: 0, refetchOnWindowFocus: false },
  },
});

/** What came of a question: an answer, a sentence about why there is none, or neither yet. */
export interface Answered<T> {
  answer: T | null;
  fault: string | null;
}

/**
 * Asks the server for what is at a path as long as whoever asks is on the page.
 * @param isWanted false while nobody needs the answer
 */
export function useServer<S extends z.ZodType>(
  path: string,
  schema: S,
  isWanted = true,
): Answered<z.output<S>> {
  const { data, error } = useQuery({
    queryKey: [path],
    queryFn: () => getJson(path, schema),
    enabled: isWanted,
  });
  return { answer: data ?? null, fault: error === null ? null : sentenceOf(error) };
}

/** Has what was said of a path asked anew, for all who show it. */
export const askAnew = (path: string): Promise<void> => queries.invalidateQueries({ queryKey: [path] });
