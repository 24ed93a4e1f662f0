import { type Page, type WorkingsDocument } from '@heuristor/contracts';
import { type Entry, entrySentence } from '@heuristor/core';
import isEqual from 'fast-deep-equal';
import { entryNames, namesOf } from './edits';

/** How an entry is called where a step speaks of it: “Region A”, “m”, “slope of x”. */
export function calledEntry(entry: Entry, workings: Pick<WorkingsDocument, 'entries'>): string {
  if (entry.kind === 'region') return entry.name === '' ? `region ${entry.letter}` : `region “${entry.name}”`;
  if (entry.name !== '') return `“${entry.name}”`;
  return entrySentence(entry, namesOf(entryNames(workings), 't')) || entry.kind;
}

const count = (number: number, one: string, many = `${one}s`) =>
  number === 1 ? `one ${one}` : `${number} ${many}`;

/** What is in one list of things with ids, and in another: those that came, went, and are not the same. */
function apart<T extends { id: string }>(before: readonly T[], after: readonly T[]) {
  const [old, now] = [before, after].map((all) => new Map(all.map((one) => [one.id, one])));
  return {
    added: after.filter(({ id }) => !old.has(id)),
    removed: before.filter(({ id }) => !now.has(id)),
    changed: after.flatMap((one) => {
      const was = old.get(one.id);
      return was === undefined || was === one || isEqual(was, one) ? [] : [{ was, is: one }];
    }),
  };
}

/** The keys in which two objects differ. */
const differing = (a: object, b: object): string[] =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (key) => !isEqual(a[key as keyof typeof a], b[key as keyof typeof b]),
  );

const placeOfRegion = new Set(['start', 'end', 'from', 'until', 'own', 'toldIn']);

function entryChange(was: Entry, is: Entry, before: WorkingsDocument): string {
  const called = calledEntry(was, before);
  const keys = differing(was, is);
  if (keys.length === 1 && keys[0] === 'name') return `rename ${called}`;
  if (is.kind === 'region' && keys.every((key) => placeOfRegion.has(key))) return `move ${called}`;
  return `change ${called}`;
}

/** What was done to the entries of a sheet, in words; null where nothing was. */
function entriesStep(before: WorkingsDocument, after: WorkingsDocument): string | null {
  const { added, removed, changed } = apart(before.entries, after.entries);
  // What comes with an entry, as a region or a constant that it speaks of, stands before it.
  const last = added.at(-1);
  if (last !== undefined)
    return added.length > 2
      ? `add ${count(added.length, 'entry', 'entries')}`
      : `add ${calledEntry(last, after)}`;
  if (removed.length === 1) return `remove ${calledEntry(removed[0], before)}`;
  if (removed.length > 1) return `remove ${count(removed.length, 'entry', 'entries')}`;
  const [first, ...others] = changed;
  if (first !== undefined) {
    // Formulas follow a name; the name is what was changed.
    const renamed = changed.find(({ was, is }) => was.name !== is.name);
    if (others.length === 0 || renamed !== undefined)
      return entryChange((renamed ?? first).was, (renamed ?? first).is, before);
    return `change ${count(changed.length, 'entry', 'entries')}`;
  }
  return isEqual(before.entries, after.entries) ? null : 'move an entry';
}

function pagesStep(before: WorkingsDocument, after: WorkingsDocument): string | null {
  const { added, removed, changed } = apart(before.pages, after.pages);
  if (added.length > 0) return 'add a page';
  if (removed.length > 0) return 'remove a page';
  const [first] = changed;
  if (first === undefined) return isEqual(before.pages, after.pages) ? null : 'move a page';
  if (first.was.name !== first.is.name) return 'rename a page';
  if (!isEqual(first.was.labels, first.is.labels)) {
    const labels = apart(first.was.labels, first.is.labels);
    if (labels.added.length > 0) return 'add a label';
    return labels.removed.length > 0 ? 'remove a label' : 'change a label';
  }
  if (first.was.horizontal !== first.is.horizontal) return 'change the horizontal axis';
  const logarithms = ({ logarithmic, panels }: Page) =>
    Number(logarithmic === true) + panels.reduce((sum, { logarithmic: sides = [] }) => sum + sides.length, 0);
  if (logarithms(first.is) > logarithms(first.was)) return 'make an axis logarithmic';
  return logarithms(first.is) < logarithms(first.was) ? 'make an axis linear' : 'arrange traces';
}

/** How runs are looked at, in words; null where that is as before. */
function looksStep(before: WorkingsDocument, after: WorkingsDocument): string | null {
  if (isEqual(before.runs, after.runs)) return null;
  const hidden = ({ runs }: WorkingsDocument) =>
    new Set(runs.flatMap((one) => (one.hidden ? [one.run] : [])));
  const [was, is] = [hidden(before), hidden(after)];
  const came = [...was].filter((run) => !is.has(run)).length;
  const went = [...is].filter((run) => !was.has(run)).length;
  if (came > 0 && went > 0) return 'show other runs';
  if (came > 0) return `show ${count(came, 'run')}`;
  if (went > 0) return `hide ${count(went, 'run')}`;
  const pinned = ({ runs }: WorkingsDocument) => runs.filter(({ keepPinned }) => keepPinned).length;
  if (pinned(after) > pinned(before)) return 'count limits and wrong echoes too';
  return pinned(after) < pinned(before) ? 'leave out limits and wrong echoes' : 'change the look of a run';
}

/**
 * What a step has done to the sheet, as an order in lower case: “move region A”, “add slope of x”. It is read off what the sheet was
 * before and after, so that whoever changes it need not say so.
 */
export function sheetStepName(before: WorkingsDocument, after: WorkingsDocument): string {
  const entries = entriesStep(before, after);
  if (entries !== null) return entries;
  if (!isEqual(before.aside, after.aside)) {
    const readings = ({ aside }: WorkingsDocument) =>
      aside.reduce((sum, { ranges }) => sum + ranges.reduce((all, [from, past]) => all + past - from, 0), 0);
    return readings(after) >= readings(before) ? 'set readings aside' : 'count readings again';
  }
  if (!isEqual(before.shifts, after.shifts)) return 'move runs in time';
  const looks = looksStep(before, after);
  if (looks !== null) return looks;
  return pagesStep(before, after) ?? 'change the sheet';
}
