import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import {
  type Entry,
  type EntryOfKind,
  type SeriesRef,
  channelRef,
  entryRef,
  freeName,
  kindOf,
  nameIn,
  partsOfResultRef,
  resultRef,
} from '@heuristor/core';
import { resultsUsedBy } from '../../workings/edits';
import { newId } from '../../investigation/ids';
import { type OnPage, panelsOf, panelsWith, withPage, withoutSeries } from '../../traces/pages/pages';
import { type Passage, isPassageKind, passages } from './passages';

/** What passes the gate, as the sheet has it. */
export interface GateSetting {
  passage: Passage;
  beams: SeriesRef[];
  length: EntryOfKind<'constant'> | null;
  spokes: number;
  /** The entries of the passage that still stand on the sheet, in its order. */
  entries: Entry[];
}

const valuesOf = (entry: Entry) => entry as unknown as Readonly<Record<string, unknown>>;

/** What passes the gate by the entries of the sheet; null where nobody has said it. */
export function gateSetting({ entries }: WorkingsDocument): GateSetting | null {
  const own = entries.filter(({ kind }) => isPassageKind(kind));
  const [first] = own;
  if (first === undefined) return null;
  const passage = passages.find((candidate) => candidate.entries.some(({ kind }) => kind === first.kind));
  if (passage === undefined) return null;
  const set = own.filter(({ kind }) => kind === first.kind);
  const values = valuesOf(first);
  const reference = values.length ?? values.spacing;
  const lengthId = typeof reference === 'string' ? partsOfResultRef(reference as never).id : null;
  const length = entries.filter((entry) => entry.kind === 'constant').find(({ id }) => id === lengthId);
  const order = (entry: Entry) =>
    passage.entries.findIndex(({ preset }) => (preset?.gives ?? null) === (valuesOf(entry).gives ?? null));
  return {
    passage,
    beams: (passage.beams === 2 ? [values.first, values.second] : [values.of]) as SeriesRef[],
    length: length ?? null,
    spokes: typeof values.number === 'number' ? values.number : 10,
    entries: [...set].sort((a, b) => order(a) - order(b)),
  };
}

/** Beams of a gate that runs have, or that are connected. */
export const beamsOfRuns = (runs: readonly Run[]): string[] => [
  ...new Set(
    runs.flatMap(({ channels }) =>
      channels.filter(({ edges }) => edges?.of === 'beam').map(({ key }) => key),
    ),
  ),
];

/**
 * The sheet for something else that passes: what was worked out of what passed before goes, but for what is called the same,
 * so that what speaks of it stays.
 */
export function withPassage(
  workings: WorkingsDocument,
  { page, runs }: OnPage,
  passage: Passage,
  beams: readonly string[],
): WorkingsDocument {
  const before = gateSetting(workings);
  const old = new Set(before?.entries.map(({ id }) => id) ?? []);
  const others = workings.entries.filter(({ id }) => !old.has(id));
  const length = passage.length === null ? null : lengthFor(passage.length, before, others);
  // A length that nothing speaks of any more goes with what it was typed for.
  const used = new Set(others.flatMap(resultsUsedBy).map((reference) => partsOfResultRef(reference).id));
  const kept = others.filter(
    (entry) => entry.id !== before?.length?.id || entry === length || used.has(entry.id),
  );
  const entries = passage.entries.map(({ kind, name, preset }): Entry => {
    const same = before?.entries.find((entry) => entry.name === name);
    const references = {
      of: channelRef(beams[0]),
      first: channelRef(beams[0]),
      second: channelRef(beams[1] ?? beams[0]),
      length: length === null ? '' : resultRef(length.id, 'value'),
      spacing: length === null ? '' : resultRef(length.id, 'value'),
      number: before?.spokes ?? 10,
      ...preset,
    };
    const fields = Object.keys(kindOf(kind).fields);
    return {
      kind,
      id: same?.id ?? newId(),
      name: same?.name ?? freeName(name, kept),
      ...Object.fromEntries(fields.map((key) => [key, references[key as keyof typeof references]])),
    } as Entry;
  });
  const isBeam = (reference: SeriesRef) =>
    reference.startsWith('channel:') && beams.includes(nameIn(reference));
  const shown = entries.slice(0, mostShown).map(({ id }) => entryRef(id));
  const withLength = length === null || kept.includes(length) ? kept : [...kept, length];
  const changed = { ...workings, entries: [...withLength, ...entries] };
  return withPage(changed, page, (before) => {
    const isGone = (reference: SeriesRef) => isBeam(reference) || old.has(nameIn(reference));
    const { horizontal, panels } = withoutSeries({ ...before, panels: panelsOf(before, runs) }, isGone);
    return { ...before, horizontal, panels: panelsWith(panels, shown) };
  });
}

/** More of them would make each too low to be read. */
const mostShown = 2;

/** A length that was not typed yet; no length is 0. */
export const notTyped = 0;

function lengthFor(
  { symbol }: NonNullable<Passage['length']>,
  before: GateSetting | null,
  entries: readonly Entry[],
): EntryOfKind<'constant'> {
  // The same kind of length is the same length; another one is typed anew.
  if (before?.length?.name === symbol) return before.length;
  return {
    kind: 'constant',
    id: newId(),
    name: freeName(symbol, entries),
    // Asked for: nobody but who holds the caliper knows.
    value: notTyped,
    uncertainty: 0.1,
    unit: 'mm',
    source: '',
    ends: '',
    shift: 0,
  };
}

/** The sheet with another number of spokes. */
export const withSpokes = (workings: WorkingsDocument, number: number): WorkingsDocument => ({
  ...workings,
  entries: workings.entries.map((entry) => (entry.kind === 'spokes' ? { ...entry, number } : entry)),
});
