/**
 * What an entry can speak about: the abscissa of the run ("t": time, or the number of the reading), one of its channels, or a
 * series that another entry derives. A reference names a channel, never a run, so it holds for every run.
 */
export type SeriesRef = 't' | `channel:${string}` | `entry:${string}`;

/** One result of another entry: its id and the key of the result. */
export type ResultRef = `result:${string}/${string}`;

export const channelRef = (key: string): SeriesRef => `channel:${key}`;
export const entryRef = (id: string): SeriesRef => `entry:${id}`;
export const resultRef = (id: string, key: string): ResultRef => `result:${id}/${key}`;

/** What an entry has found one by one, which is no series but can be the rows of a table. */
export const eachRef = (id: string, key: string): SeriesRef => `entry:${id}/${key}`;

/** The entry that a reference to a series, or to what one has found one by one, speaks of. */
export const entryIn = (reference: SeriesRef): string => nameIn(reference).split('/')[0];

/** The name behind the colon: the key of a channel or the id of an entry. */
export const nameIn = (reference: string): string => reference.slice(reference.indexOf(':') + 1);

/** The parts of a reference to a result. */
export function partsOfResultRef(reference: ResultRef): { id: string; key: string } {
  const name = nameIn(reference);
  const slash = name.lastIndexOf('/');
  return { id: name.slice(0, slash), key: name.slice(slash + 1) };
}
