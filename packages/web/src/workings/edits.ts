import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import {
  type Anchor,
  type Entry,
  type EntryKindKey,
  type ResultRef,
  type SeriesRef,
  channelRef,
  drawsGraph,
  entryRef,
  entrySentence,
  freeLetter,
  freeName,
  kindOf,
  nameIn,
  parseUnit,
  partsOfResultRef,
  regionOfEntry,
  resultRef,
  yieldsSeries,
  valueOfNew,
} from '@heuristor/core';
import { type Axis, type ShownOutcome } from '../workers/protocol';
import { newId } from '../investigation/ids';
import { withoutLabelsOf } from '../traces/labels/labels';
import {
  type OnPage,
  pageIn,
  withPage,
  withShown,
  withShownOver,
  withoutSeries,
} from '../traces/pages/pages';
import { presentRuns } from '../runs/runs';

/** Every series there is: channels of any run that is present, then derived ones in the order of the sheet. */
export function seriesChoices(
  runs: readonly Run[],
  { entries }: Pick<WorkingsDocument, 'entries'>,
): SeriesRef[] {
  const keys = new Set(presentRuns(runs).flatMap(({ channels }) => channels.map(({ key }) => key)));
  return [...[...keys].map(channelRef), ...entries.filter(yieldsSeries).map(({ id }) => entryRef(id))];
}

/** Every entry that draws something over axes of its own. */
export const graphChoices = ({ entries }: Pick<WorkingsDocument, 'entries'>): SeriesRef[] =>
  entries.filter(drawsGraph).map(({ id }) => entryRef(id));

export interface NewEntry {
  kind: EntryKindKey;
  preset?: Readonly<Record<string, unknown>>;
  of: SeriesRef;
  /** Name of the series, from which a derived one gets its own. */
  nameOfSource?: string;
  region: string | null;
  /** Results that its fields speak of, in their order. */
  results?: readonly ResultRef[];
}

/** The sheet with a new entry, whatever its kind: fields are filled as their kind declares. */
export function withEntry(
  workings: WorkingsDocument,
  { page, runs }: OnPage,
  about: NewEntry,
): { workings: WorkingsDocument; id: string } {
  const { fields, yields, draws, drawnOver, customaryName } = kindOf(about.kind);
  const id = newId();
  const wish = customaryName?.(about.nameOfSource ?? '') ?? '';
  const { horizontal } = pageIn(workings, page);
  let place = 0;
  const nextResult = () => about.results?.[place++] ?? about.results?.at(-1) ?? '';
  const entry = {
    kind: about.kind,
    id,
    name: wish === '' ? '' : freeName(wish, workings.entries),
    ...Object.fromEntries(
      Object.entries(fields).map(([key, field]) => [
        key,
        valueOfNew(field, { key, of: about.of, horizontal, region: about.region, nextResult }),
      ]),
    ),
    ...about.preset,
  } as Entry;
  fillAnchors(entry, about.of);
  const added = { ...workings, entries: [...workings.entries, entry] };
  return {
    id,
    workings:
      yields === 'series' || draws === 'graph'
        ? withPage(added, page, (shown) =>
            drawnOver === true
              ? withShownOver(shown, runs, entryRef(id), about.of)
              : withShown(shown, runs, [entryRef(id)]),
          )
        : added,
  };
}

/** An event that an offer sets happens in the series that the entry is of. */
function fillAnchors(entry: Entry, of: SeriesRef): void {
  const values = entry as unknown as Record<string, unknown>;
  for (const [key, { type }] of Object.entries(kindOf(entry.kind).fields)) {
    const anchor = values[key] as Anchor | null;
    if (type === 'anchor' && anchor?.of === 't') values[key] = { ...anchor, of };
  }
}

/** The sheet with a constant of that name at its head; where its value is not said, it is still to be typed. */
export function withConstant(
  workings: WorkingsDocument,
  name: string,
  said: Partial<Extract<Entry, { kind: 'constant' }>> = {},
): WorkingsDocument {
  const constant: Entry = {
    kind: 'constant',
    id: newId(),
    name: freeName(name, workings.entries),
    value: 1,
    uncertainty: 0,
    unit: '',
    source: '',
    ends: '',
    shift: 0,
    ...said,
  };
  return { ...workings, entries: [constant, ...workings.entries] };
}

export function withRegion(
  workings: WorkingsDocument,
  page: string | null,
  start: number,
  end: number,
  along: SeriesRef = pageIn(workings, page).horizontal,
): { workings: WorkingsDocument; id: string } {
  const id = newId();
  const region: Entry = {
    kind: 'region',
    id,
    name: '',
    letter: freeLetter(workings.entries),
    along,
    start,
    end,
  };
  return { id, workings: { ...workings, entries: [...workings.entries, region] } };
}

export function withoutEntry(workings: WorkingsDocument, id: string): WorkingsDocument {
  const { entries, pages, ...rest } = withoutLabelsOf(workings, id);
  return {
    ...rest,
    entries: entries.filter((entry) => entry.id !== id),
    pages: pages.map((page) => withoutSeries(page, (reference) => reference === entryRef(id))),
  };
}

/** Puts an entry to where another one stands. */
export function withMoved(workings: WorkingsDocument, id: string, over: string): WorkingsDocument {
  const from = workings.entries.findIndex((entry) => entry.id === id);
  const to = workings.entries.findIndex((entry) => entry.id === over);
  if (from < 0 || to < 0 || from === to) return workings;
  const entries = [...workings.entries];
  entries.splice(to, 0, ...entries.splice(from, 1));
  return { ...workings, entries };
}

/** A group of the sheet: a region with what is worked out on it, or what stands for itself. */
export interface EntryGroup {
  region: Extract<Entry, { kind: 'region' }> | null;
  entries: Entry[];
}

/** The sheet by regions: first what has none, then each region with its entries, all in the order of the sheet. */
export function groupsOf({ entries }: WorkingsDocument): EntryGroup[] {
  const regions = entries.filter((entry) => entry.kind === 'region');
  const isOn = (entry: Entry, id: string) => 'region' in entry && entry.region === id;
  const rest = entries.filter(
    (entry) => entry.kind !== 'region' && !regions.some(({ id }) => isOn(entry, id)),
  );
  return [
    ...(rest.length > 0 ? [{ region: null, entries: rest }] : []),
    ...regions.map((region) => ({ region, entries: entries.filter((entry) => isOn(entry, region.id)) })),
  ];
}

/** The order of the sheet: regions and entries by their ids. */
export const orderOf = (workings: WorkingsDocument): string[] =>
  groupsOf(workings).flatMap(({ region, entries }) => [
    ...(region === null ? [] : [region.id]),
    ...entries.map(({ id }) => id),
  ]);

/** How channels are called that are columns of a table, by their references; those of a recorded run are called by their keys. */
export const columnNames = (runs: readonly Pick<Run, 'channels'>[]): Record<string, string> =>
  Object.fromEntries(
    runs
      .flatMap(({ channels }) => channels)
      .filter(({ id }) => id < 0)
      .map(({ key, symbol }) => [channelRef(key), symbol]),
  );

/** The names that people gave to entries, by their ids. */
export const entryNames = ({ entries }: Pick<WorkingsDocument, 'entries'>): Record<string, string> =>
  Object.fromEntries(entries.map(({ id, name }) => [id, name]));

/** How a reference is called on this bench; results are called by the entry that works them out. */
export function namesOf(
  names: Readonly<Record<string, string>>,
  abscissa: string,
  results: Readonly<Record<string, string>> = {},
): (reference: string) => string {
  return (reference) => {
    if (reference === 't') return abscissa;
    const name = nameIn(reference);
    if (reference.startsWith('channel:')) return names[reference] ?? name;
    if (reference.startsWith('result:')) {
      // What is refused has a name all the same.
      const { id } = partsOfResultRef(reference as ResultRef);
      return results[reference] ?? (id in names ? names[id] || 'a result' : 'a removed result');
    }
    return names[name] ?? 'a removed series';
  };
}

/** What tells an entry from those that say the same of other stretches: ", held" on a region of that name, ", B" on one without. */
function intervalWords(entry: Entry, entries: readonly Entry[]): string {
  const id = regionOfEntry(entry);
  const region = entries.find((other) => other.id === id);
  return region?.kind === 'region' ? `, ${region.name === '' ? region.letter : region.name}` : '';
}

/**
 * Every result that another entry can use and what it is called: "period of the swing", "mean of F, held". No two are called alike:
 * where entries say the same of the same, they are counted.
 */
export function resultNames(
  { entries }: Pick<WorkingsDocument, 'entries'>,
  outcomes: Readonly<Record<string, NamedResults>>,
  abscissa: string,
): Record<ResultRef, string> {
  const names = entryNames({ entries });
  const known: Record<ResultRef, string> = {};
  const counts = new Map<string, number>();
  // A sentence may speak of a result in turn; entries are gone through until all that can be named are.
  for (let left = entries.filter(({ id }) => outcomes[id]?.kind === 'results'); left.length > 0;) {
    const nameOf = namesOf(names, abscissa, known);
    const ready = left.filter((entry) => resultsUsedBy(entry).every((used) => used in known));
    for (const entry of ready.length > 0 ? ready : left) {
      const plain =
        entry.name === '' ? entrySentence(entry, nameOf) + intervalWords(entry, entries) : entry.name;
      const alike = (counts.get(plain) ?? 0) + 1;
      counts.set(plain, alike);
      const called = alike === 1 ? plain : `${plain} (${alike})`;
      for (const { key, name } of resultsIn(outcomes[entry.id]))
        known[resultRef(entry.id, key)] =
          key === 'value' || called.startsWith(`${name} `) ? called : `${name} of ${called}`;
    }
    left = ready.length > 0 ? left.filter((entry) => !ready.includes(entry)) : [];
  }
  return known;
}

/** What an entry says, as far as its results have names. */
interface NamedResults {
  kind: ShownOutcome['kind'];
  results?: readonly { key: string; name: string }[];
}

const resultsIn = ({ results = [] }: NamedResults) => results;

/** The main result of each entry, in the order of the sheet. */
export const mainResults = (
  { entries }: Pick<WorkingsDocument, 'entries'>,
  outcomes: Readonly<Record<string, ShownOutcome>>,
): ResultRef[] =>
  entries.flatMap(({ id }) => {
    const outcome = outcomes[id];
    return outcome?.kind === 'results'
      ? outcome.results.filter(({ main }) => main).map(({ key }) => resultRef(id, key))
      : [];
  });

/** The results that an entry speaks of. */
export function resultsUsedBy(entry: Entry): ResultRef[] {
  const values = entry as unknown as Readonly<Record<string, unknown>>;
  return Object.entries(kindOf(entry.kind).fields)
    .filter(([, { type }]) => type === 'result')
    .map(([key]) => values[key] as ResultRef);
}

/** The abscissa of the present runs, along which cursors move. */
export function abscissaAxis(runs: readonly Run[]): Axis {
  const symbol = abscissaOfRuns(runs);
  const timed = presentRuns(runs)
    .flatMap(({ channels }) => channels)
    .find(({ timeUnit }) => timeUnit !== '');
  return symbol === 't'
    ? { symbol, quantity: 'time', unit: parseUnit(timed?.timeUnit ?? 's') }
    : { symbol, quantity: 'reading number', unit: [] };
}

/** What the abscissa of the present runs is called. */
export const abscissaOfRuns = (runs: readonly Run[]): string => {
  const present = presentRuns(runs);
  return present.length === 0 ||
    present.some(({ channels }) => channels.some(({ timeUnit }) => timeUnit === 's'))
    ? 't'
    : 'reading';
};
