import { sameName } from '../formula/names';
import { type Entry, type Workings } from '../workings/entries';
import { nameIn, partsOfResultRef } from '../workings/references';
import { openNames, referencesIn } from '../workings/uses';

/**
 * What decides what an entry of a sheet says, beside the run and what was said of it: its own words and those of all that it speaks
 * of, directly or through others, and what the sheet does with the run. The same text means the same outcome.
 */
export const dependenciesOf = (workings: Workings, runId: string): Map<string, string> =>
  dependenciesOn(workings)(runId);

/** The same for many runs. */
export function dependenciesOn(workings: Workings): (runId: string) => Map<string, string> {
  const { entries, aside = [], shifts = [], runs = [] } = workings;
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const direct = new Map(entries.map((entry) => [entry.id, directDependenciesOf(entry, entries)]));
  const words = entries.map(({ id }): [id: string, words: string[]] => {
    const reached = new Set([id]);
    const said: string[] = [];
    for (const next of reached) {
      const entry = byId.get(next);
      // What was removed is known by its id: an entry may speak of something that was removed.
      said.push(entry === undefined ? next : JSON.stringify(entry));
      const { ids, names } = direct.get(next) ?? nothing;
      if (names !== null) said.push(names);
      for (const other of ids) reached.add(other);
    }
    return [id, said];
  });
  return (runId) => {
    const ofRun = JSON.stringify([
      aside.filter(({ run }) => run === runId),
      shifts.find(({ run }) => run === runId)?.by ?? 0,
      runs.find(({ run }) => run === runId)?.keepPinned ?? false,
    ]);
    return new Map(words.map(([id, said]) => [id, JSON.stringify([ofRun, ...said])]));
  };
}

interface DirectDependencies {
  ids: readonly string[];
  /** The names of all entries, where a name in a formula means none of them: it might be taken for one of these. */
  names: string | null;
}

const nothing: DirectDependencies = { ids: [], names: null };

/** Entries that one speaks of: under references, and by names in formulas. */
function directDependenciesOf(entry: Entry, entries: readonly Entry[]): DirectDependencies {
  const { series, results, regions } = referencesIn(entry);
  const ids = [
    ...series.filter((reference) => reference.startsWith('entry:')).map(nameIn),
    ...results.map((reference) => partsOfResultRef(reference).id),
    ...regions,
  ];
  const open = openNames(entry);
  const called = open.map((name) => entries.filter((other) => mayBeCalled(other.name, name)));
  const isUnknown = called.some((found) => found.length === 0);
  return {
    ids: [...ids, ...called.flat().map(({ id }) => id)],
    names: isUnknown ? JSON.stringify(entries.map(({ id, name }) => [id, name])) : null,
  };
}

const mayBeCalled = (own: string, name: string): boolean =>
  own !== '' && (sameName(own) === sameName(name) || name.endsWith(` of ${own}`));
