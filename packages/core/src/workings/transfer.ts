import { sameName } from '../formula/names';
import { canConvert } from '../units/conversion';
import { parseUnit } from '../units/unit';
import { type Entry, kindOf } from './entries';
import {
  type ResultRef,
  type SeriesRef,
  channelRef,
  entryRef,
  nameIn,
  partsOfResultRef,
  resultRef,
} from './references';
import { formulasIn, openNames, referencesIn, withReferences } from './uses';
import { withUnitsGiven } from './givenUnits';

/** A channel as sheets know it: by its key, by what it measures, and in which unit. */
export interface KnownChannel {
  key: string;
  quantity: string;
  /** UCUM code. */
  unit: string;
  /** Whether its zero was taken in every run that it was known from. */
  zeroed?: boolean | undefined;
  /** Whether its readings were taken in time, and not numbered as those of a table are; unknown where there were both. */
  timed?: boolean | undefined;
}

/** A sheet with the channels that it speaks of, or is to speak of. */
export interface SheetOver {
  entries: readonly Entry[];
  channels: readonly KnownChannel[];
}

export interface Transfer {
  /** The entries of the other sheet, with those that came. */
  entries: Entry[];
  /** Where each entry is now, by where it was. */
  ids: ReadonlyMap<string, string>;
  /** What stands for each channel there, by its key here. */
  channels: ReadonlyMap<string, string>;
  /** Channels for which there is nothing there; what speaks of them is refused until there is. */
  lacking: KnownChannel[];
}

/**
 * What stands for each channel of one sheet on another one: the one of that key where it measures the same, else one that
 * measures the same, else one whose unit is of the same kind. What was read in time stands for nothing that a table numbers.
 */
export function channelsFor(
  wanted: readonly KnownChannel[],
  there: readonly KnownChannel[],
): { channels: Map<string, string>; lacking: KnownChannel[] } {
  const channels = new Map<string, string>();
  const isFree = ({ key }: KnownChannel) => ![...channels.values()].includes(key);
  const isOfWay = (one: KnownChannel, other: KnownChannel) =>
    one.timed === undefined || other.timed === undefined || one.timed === other.timed;
  const measures = (one: KnownChannel) => (other: KnownChannel) =>
    isOfWay(one, other) && other.quantity === one.quantity;
  const isOfKind = (one: KnownChannel) => (other: KnownChannel) =>
    isOfWay(one, other) &&
    one.unit !== '' &&
    one.unit !== '1' &&
    canConvert(parseUnit(one.unit), parseUnit(other.unit));
  const rules = [
    (one: KnownChannel) => there.find((other) => other.key === one.key && measures(one)(other)),
    (one: KnownChannel) => there.filter(isFree).find(measures(one)),
    (one: KnownChannel) => there.filter(isFree).find(isOfKind(one)),
    (one: KnownChannel) => there.find(measures(one)),
  ];
  for (const rule of rules)
    for (const one of wanted) {
      if (channels.has(one.key)) continue;
      const found = rule(one);
      if (found !== undefined) channels.set(one.key, found.key);
    }
  return { channels, lacking: wanted.filter(({ key }) => !channels.has(key)) };
}

/**
 * Entries of one sheet on another one, with all that they speak of. What is there already in the same words is used; names that
 * are taken and letters get the next free one, and formulas follow.
 * @param wanted ids of the entries; all of them where it is null
 * @param isAlike says which other entry that is there stands for one that comes
 */
export function transferred(
  from: SheetOver,
  wanted: readonly string[] | null,
  to: SheetOver,
  newId: () => string,
  isAlike: (there: Entry, coming: Entry) => boolean = () => false,
): Transfer {
  const needed = wanted === null ? from.entries : closureOf(from.entries, wanted);
  const used = new Set(
    needed.flatMap((entry) => [...channelsIn(entry), ...channelNamesIn(entry, from.channels)]),
  );
  const { channels, lacking } = channelsFor(
    from.channels.filter(({ key }) => used.has(key)),
    to.channels,
  );
  const ids = new Map<string, string>();
  const entries = [...to.entries];
  const done = new Set<Entry>();
  const series = (reference: SeriesRef): SeriesRef => {
    if (reference.startsWith('channel:'))
      return channelRef(channels.get(nameIn(reference)) ?? nameIn(reference));
    return reference === 't' ? reference : entryRef(ids.get(nameIn(reference)) ?? nameIn(reference));
  };
  const result = (reference: ResultRef): ResultRef => {
    const { id, key } = partsOfResultRef(reference);
    return resultRef(ids.get(id) ?? id, key);
  };
  const put = (entry: Entry): void => {
    if (done.has(entry)) return;
    done.add(entry);
    // What it speaks of comes first, so that its place is known.
    usedEntries(entry, from.entries).forEach((other) => needed.includes(other) && put(other));
    // A level of a channel is given in the unit that this channel has here, whatever it has there.
    const next = withUnitsGiven(withBoundNames(entry, from), (of) => unitOfChannel(of, from.channels));
    const moved = withReferences(next, { series, result, region: (id) => ids.get(id) ?? id });
    const plain = moved.kind === 'region' ? { ...moved, own: [] } : moved;
    const same =
      entries.find((other) => meansSame(other, plain)) ?? to.entries.find((other) => isAlike(other, plain));
    if (same !== undefined) {
      ids.set(entry.id, same.id);
      return;
    }
    const id = newId();
    ids.set(entry.id, id);
    entries.push({ ...withFreeName(plain, entries), id });
  };
  needed.forEach(put);
  // Entries came as they were needed; they stand in the order in which they stood.
  const order = new Map(needed.map((entry, place) => [ids.get(entry.id), place]));
  const old = entries.slice(0, to.entries.length);
  const come = entries
    .slice(to.entries.length)
    .sort((a, b) => (order.get(a.id) ?? 0) - (order.get(b.id) ?? 0));
  return { entries: [...old, ...come], ids, channels, lacking };
}

/** The unit of a channel; null of a column that came without one. */
const unitOfChannel = (of: SeriesRef, channels: readonly KnownChannel[]): string | null =>
  channels.find(({ key }) => channelRef(key) === of)?.unit || null;

/** The entries that another one speaks of, under a reference or by name in a formula. */
function usedEntries(entry: Entry, entries: readonly Entry[]): Entry[] {
  const { series, results, regions } = referencesIn(entry);
  const ids = new Set([
    ...series.filter((reference) => reference.startsWith('entry:')).map(nameIn),
    ...results.map((reference) => partsOfResultRef(reference).id),
    ...regions,
  ]);
  const names = new Set(openNames(entry).map(sameName));
  return entries.filter(
    (other) =>
      other !== entry &&
      (ids.has(other.id) ||
        (other.name !== '' && other.kind !== 'region' && names.has(sameName(other.name)))),
  );
}

function closureOf(entries: readonly Entry[], wanted: readonly string[]): Entry[] {
  const found = new Set<Entry>();
  const add = (entry: Entry): void => {
    if (found.has(entry)) return;
    found.add(entry);
    usedEntries(entry, entries).forEach(add);
  };
  entries.filter(({ id }) => wanted.includes(id)).forEach(add);
  return entries.filter((entry) => found.has(entry));
}

const channelsIn = (entry: Entry): string[] =>
  referencesIn(entry)
    .series.filter((reference) => reference.startsWith('channel:'))
    .map(nameIn);

const channelNamesIn = (entry: Entry, channels: readonly KnownChannel[]): string[] => {
  const names = new Set(openNames(entry).map(sameName));
  return channels.filter(({ key }) => names.has(sameName(key))).map(({ key }) => key);
};

/** An entry whose formulas know by reference what their names mean, as far as that is known without working it out. */
function withBoundNames(entry: Entry, { entries, channels }: SheetOver): Entry {
  const parameters = entry.kind === 'formulaFit' ? entry.parameters : {};
  const meant = (name: string): SeriesRef | ResultRef | null => {
    if (Object.hasOwn(parameters, name)) return null;
    const wanted = sameName(name);
    const called = entries.find(
      (other) =>
        other !== entry && other.kind !== 'region' && other.name !== '' && sameName(other.name) === wanted,
    );
    if (called !== undefined) {
      if (kindOf(called.kind).yields === 'series') return entryRef(called.id);
      return called.kind === 'constant' || called.kind === 'calculation'
        ? resultRef(called.id, 'value')
        : null;
    }
    const channel = channels.find(({ key }) => sameName(key) === wanted);
    return channel === undefined ? null : channelRef(channel.key);
  };
  const patch = formulasIn(entry).map(([field, formula]) => {
    const names: Record<string, SeriesRef | ResultRef> = { ...formula.names };
    for (const name of openNames(entry)) {
      const reference = meant(name);
      if (reference !== null) names[name] = reference;
    }
    return [field, { ...formula, names }];
  });
  return { ...entry, ...Object.fromEntries(patch) } as Entry;
}

/**
 * Whether one entry does what another one does, by its kind, its name and what it speaks of, though it was set otherwise: the v of
 * the same x through a wider window, a g that was typed with other digits, a region of that name that a hand has dragged.
 */
export function doesTheSame(a: Entry, b: Entry): boolean {
  if (a.kind !== b.kind || a.name === '' || sameName(a.name) !== sameName(b.name)) return false;
  if (a.kind === 'constant' && b.kind === 'constant') return canConvert(parseUnit(a.unit), parseUnit(b.unit));
  const asked = (entry: Entry) =>
    JSON.stringify([referencesIn(entry), formulasIn(entry).map(([, { text }]) => text)]);
  return asked(a) === asked(b);
}

/** Whether two entries say the same, whatever their ids, letters and notes. */
function meansSame(a: Entry, b: Entry): boolean {
  const plain = (entry: Entry) => {
    const letter = entry.kind === 'region' ? { letter: '', own: [] } : {};
    const whole = { ...entry, ...letter, id: '', note: undefined, folded: undefined, shownIn: undefined };
    return JSON.stringify(Object.entries(whole).sort(([x], [y]) => (x < y ? -1 : 1)));
  };
  return a.kind === b.kind && plain(a) === plain(b);
}

/** An entry with a name, and a region with a letter, that no other one has. */
function withFreeName(entry: Entry, entries: readonly Entry[]): Entry {
  const named =
    entry.name === '' || entry.kind === 'region' ? entry : { ...entry, name: freeName(entry.name, entries) };
  return named.kind === 'region' ? { ...named, letter: freeLetter(entries, named.letter) } : named;
}

/** A name that no entry has yet: the wish, or with the next number. */
export function freeName(wish: string, entries: readonly Entry[]): string {
  const taken = new Set(entries.map(({ name }) => name));
  let name = wish;
  for (let n = 2; taken.has(name); n++) name = `${wish}${n}`;
  return name;
}

/** A letter that no region has: the wish, or the first one that is free. */
export function freeLetter(entries: readonly Entry[], wish = 'A'): string {
  const used = new Set(entries.map((entry) => (entry.kind === 'region' ? entry.letter : '')));
  if (!used.has(wish)) return wish;
  for (let i = 0; ; i++) {
    const letter =
      i < 26
        ? String.fromCharCode(65 + i)
        : `${String.fromCharCode(65 + ((Math.floor(i / 26) - 1) % 26))}${String.fromCharCode(65 + (i % 26))}`;
    if (!used.has(letter)) return letter;
  }
}
