import { type Ranges } from '../series/ranges';
import { type Field, type FieldValues, type Fields, type StoredValues, usualOf } from './fields';
import { type EntryBase, type EntryKind, type NameOf } from './kind';
import { type Kinds, kinds } from './kinds';

type EntryOf<K> =
  K extends EntryKind<infer Name, infer F> ? EntryBase & { kind: Name } & StoredValues<F> : never;

/** Every kind of entry there can be on the sheet, as declared by the kinds. */
export type Entry = { [K in keyof Kinds]: EntryOf<Kinds[K]> }[keyof Kinds];

export type EntryKindKey = Entry['kind'];

/** The entry of one kind. */
export type EntryOfKind<K extends EntryKindKey> = Extract<Entry, { kind: K }>;

/** The sheet of entries that belongs to an investigation, in the order in which people read it. */
export interface Workings {
  entries: Entry[];
  /** Readings that people have set aside. */
  aside?: readonly Aside[];
  /** Runs that people have moved in time. */
  shifts?: readonly Shift[];
  /** What people have decided of single runs. */
  runs?: readonly RunChoice[];
}

/** What somebody has decided of a run, as far as it changes what is worked out. */
export interface RunChoice {
  run: string;
  /** Readings that are no measurement, at a limit or wrong echoes, count in spite of it. */
  keepPinned?: boolean | undefined;
}

/** Readings of one channel of one run that do not count: they are kept, shown, and left out of all that is worked out. */
export interface Aside {
  run: string;
  channel: string;
  ranges: Ranges;
}

/** By how much a run is moved along its abscissa, in the unit of that. */
export interface Shift {
  run: string;
  by: number;
}

/** The kind of an entry. */
// An entry and its kind carry the same discriminant, which the type system cannot follow through the look-up.
export const kindOf = (key: EntryKindKey): EntryKind => kinds[key] as unknown as EntryKind;

export const entryKindKeys = Object.keys(kinds) as EntryKindKey[];

const laterOf = new Map<EntryKindKey, [name: string, usual: unknown][]>();

/** Entries are never changed, only replaced; what follows from one alone is worked out once for all runs. */
const completed = new WeakMap<Entry, EntryBase & FieldValues<Fields>>();

/** An entry as its kind wants it, with every field. The discriminant that both carry names the kind. */
export function completeEntry(entry: Entry): EntryBase & FieldValues<Fields> {
  let whole = completed.get(entry);
  if (whole === undefined) completed.set(entry, (whole = withLaterFields(entry)));
  return whole;
}

function withLaterFields(entry: Entry): EntryBase & FieldValues<Fields> {
  let later = laterOf.get(entry.kind);
  if (later === undefined) {
    later = Object.entries(kindOf(entry.kind).fields)
      .filter(([, field]) => field.later === true)
      .map(([name, field]) => [name, usualOf(field)]);
    laterOf.set(entry.kind, later);
  }
  const missing = later.filter(([name]) => !(name in entry));
  const all = missing.length === 0 ? entry : { ...Object.fromEntries(missing), ...entry };
  return all as unknown as EntryBase & FieldValues<Fields>;
}

/** An entry as a sentence, without its region's letter. */
export const entrySentence = (entry: Entry, nameOf: NameOf): string =>
  kindOf(entry.kind).sentence(completeEntry(entry), nameOf);

/** Whether an entry fits a relation, one that ships or one that was typed. */
export const isFit = (entry: Entry): entry is Extract<Entry, { kind: 'fit' | 'formulaFit' }> =>
  entry.kind === 'fit' || entry.kind === 'formulaFit';

/** What an entry asks for, but for what means nothing for it. */
export function fieldsOf(entry: Entry): [name: string, field: Field][] {
  const { fields, idle } = kindOf(entry.kind);
  const left = idle?.(completeEntry(entry)) ?? [];
  return Object.entries(fields).filter(([name]) => !left.includes(name));
}

/** Whether an entry makes a series that other entries can speak of. */
export const yieldsSeries = ({ kind }: Entry): boolean => kindOf(kind).yields === 'series';

/** Whether an entry draws something over axes of its own. */
export const drawsGraph = ({ kind }: Entry): boolean => kindOf(kind).draws === 'graph';

/** Whether it draws a curve over the series that it is of. */
export const drawsCurve = ({ kind }: Entry): boolean => kindOf(kind).draws === 'curve';

/** Whether an entry says the same of every run: it speaks of nothing that a run has. */
export const isSameForAllRuns = ({ kind }: Entry): boolean =>
  Object.values(kindOf(kind).fields).every(
    ({ type }) => type !== 'series' && type !== 'result' && type !== 'formula',
  );

/** The region that an entry is worked out on: its id, null for the whole run, undefined where it has none. */
export function regionOfEntry(entry: Entry): string | null | undefined {
  return 'region' in entry ? entry.region : undefined;
}
