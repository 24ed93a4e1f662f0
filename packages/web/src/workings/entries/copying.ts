import { type Investigation, investigationSchema } from '@heuristor/contracts';
import { type Entry, transferred } from '@heuristor/core';
import { ApiError, getJson, request } from '../../api/client';
import { newId } from '../../investigation/ids';
import { channelsOfRuns, lackingWords } from '../templates/templates';

const mostEntries = 200;

/**
 * Copies an entry with all that it speaks of onto the sheet of another investigation; what is there already is used.
 * @returns what was done, in a sentence
 * @throws Error in words where it cannot be
 */
export async function copyEntry(
  from: Pick<Investigation, 'workings' | 'runs'>,
  id: string,
  target: { id: string; name: string },
): Promise<string> {
  for (let tries = 0; ; tries++) {
    const there = await getJson(`/investigations/${target.id}`, investigationSchema);
    const channels = channelsOfRuns(there.runs);
    const { entries, ids, lacking } = transferred(
      { entries: from.workings.entries, channels: channelsOfRuns(from.runs) },
      [id],
      { entries: there.workings.entries, channels },
      newId,
    );
    if (entries.length > mostEntries)
      throw new Error(`The sheet of “${there.name}” is full: it holds ${mostEntries} entries.`);
    try {
      await request('PUT', `/investigations/${target.id}/workings`, {
        version: there.workingsVersion,
        workings: { ...there.workings, entries },
      });
    } catch (error) {
      // Somebody works on it at this moment: once more on what stands there now.
      if (tries < 3 && error instanceof ApiError && error.code === 'stale-document') continue;
      throw error;
    }
    const known = new Set(there.workings.entries.map((entry) => entry.id));
    const came = entries.filter((entry) => !known.has(entry.id));
    return wordsOf(came, ids.get(id), there.name, channels.length === 0 ? '' : lackingWords(lacking));
  }
}

function wordsOf(came: readonly Entry[], own: string | undefined, name: string, lacking: string): string {
  if (came.length === 0) return `It is on the sheet of “${name}” already.`;
  const others = came.filter(({ id }) => id !== own).length;
  const along = others === 0 ? '' : `, with ${others} ${others === 1 ? 'entry' : 'entries'} that it uses`;
  return `Copied to “${name}”${along}.${lacking}`;
}
