import { parsed } from '../formula/parsed';
import { namesIn } from '../formula/tree';
import { Refusal, orRefusal } from '../refusal';
import { type Entry, kindOf } from './entries';
import { type ReferenceMap } from './fieldTypes/fieldType';
import { type FormulaText, usesOf, valueWithReferences } from './fields';
import { type ResultRef, type SeriesRef } from './references';

/** An entry that speaks of other things in the same way, as its kind declares what it speaks of. */
export function withReferences(entry: Entry, map: ReferenceMap): Entry {
  const values = entry as unknown as Readonly<Record<string, unknown>>;
  const changed = Object.entries(kindOf(entry.kind).fields).flatMap(([name, field]): [string, unknown][] => {
    const { [name]: value } = values;
    const next = value === undefined || value === null ? undefined : valueWithReferences(field, value, map);
    return next === undefined ? [] : [[name, next]];
  });
  const { toldIn } = entry;
  const units =
    toldIn === undefined
      ? {}
      : {
          toldIn: Object.fromEntries(
            Object.entries(toldIn).map(([of, code]) => [map.series(of as SeriesRef), code]),
          ),
        };
  return { ...entry, ...Object.fromEntries(changed), ...units } as Entry;
}

/** Everything that an entry speaks of under a reference. */
export function referencesIn(entry: Entry): { series: SeriesRef[]; results: ResultRef[]; regions: string[] } {
  const found = { series: [] as SeriesRef[], results: [] as ResultRef[], regions: [] as string[] };
  // What it speaks of decides of what units are told.
  const { toldIn, ...said } = entry;
  withReferences(toldIn === undefined ? entry : (said as Entry), {
    series: (reference) => (found.series.push(reference), reference),
    result: (reference) => (found.results.push(reference), reference),
    region: (id) => (found.regions.push(id), id),
  });
  return found;
}

/** The formulas of an entry, by their fields. */
export function formulasIn(entry: Entry): [field: string, formula: FormulaText][] {
  const values = entry as unknown as Readonly<Record<string, unknown>>;
  return Object.entries(kindOf(entry.kind).fields).flatMap(([name, field]) => {
    const { [name]: value } = values;
    const { formulas = [] } = value === undefined ? {} : usesOf(field, value);
    return formulas.map((formula): [string, FormulaText] => [name, formula]);
  });
}

/** Names in the formulas of an entry that were bound to nothing when it was typed. */
export function openNames(entry: Entry): string[] {
  return formulasIn(entry).flatMap(([, { text, names }]) => {
    const read = text === '' ? null : orRefusal(() => parsed(text));
    if (read === null || read instanceof Refusal) return [];
    return namesIn(read).filter((name) => !Object.hasOwn(names, name));
  });
}
