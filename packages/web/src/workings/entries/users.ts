import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Entry,
  entryRef,
  freeName,
  namesIn,
  orRefusal,
  parseFormula,
  referencesIn,
  Refusal,
  resultRef,
  sameName,
} from '@heuristor/core';
import { newId } from '../../investigation/ids';
import { formulasOf } from '../formulas/formulas';

/** Whether an entry speaks of another one: in a field, or in a formula under its name. */
function uses(entry: Entry, other: Entry): boolean {
  const { series, results, regions } = referencesIn(entry);
  if (
    series.includes(entryRef(other.id)) ||
    regions.includes(other.id) ||
    results.some((reference) => reference.startsWith(resultRef(other.id, '')))
  )
    return true;
  return formulasOf(entry).some(([, { text, names }]) => {
    const read = orRefusal(() => parseFormula(text));
    return (
      other.name !== '' &&
      !(read instanceof Refusal) &&
      namesIn(read).some((name) => !Object.hasOwn(names, name) && sameName(name) === sameName(other.name))
    );
  });
}

/** The entries that speak of one, in the order of the sheet. */
export function usersOf({ entries }: Pick<WorkingsDocument, 'entries'>, id: string): Entry[] {
  const used = entries.find((entry) => entry.id === id);
  return used === undefined ? [] : entries.filter((entry) => entry.id !== id && uses(entry, used));
}

/** The sheet with a copy of an entry right after it. */
export function withDuplicate(
  workings: WorkingsDocument,
  id: string,
): { workings: WorkingsDocument; id: string } | null {
  const place = workings.entries.findIndex((entry) => entry.id === id);
  if (place < 0) return null;
  const entry = workings.entries[place];
  const copy = {
    ...entry,
    id: newId(),
    name: entry.name === '' ? '' : freeName(entry.name, workings.entries),
  };
  const entries = [...workings.entries];
  entries.splice(place + 1, 0, copy);
  return { workings: { ...workings, entries }, id: copy.id };
}

/** Names of entries in a sentence: “K, V and E”. */
export function listed(names: readonly string[]): string {
  if (names.length < 2) return names.join('');
  return `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
}
