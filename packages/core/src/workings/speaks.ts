import { type Anchor, type FormulaText } from './fields';
import { type Entry, kindOf } from './entries';
import { type ResultRef, type SeriesRef } from './references';

/** What the references of an entry are put for. */
export interface ReferenceMap {
  series(reference: SeriesRef): SeriesRef;
  result(reference: ResultRef): ResultRef;
  region(id: string): string;
}

/** An entry that speaks of other things in the same way, as its kind declares what it speaks of. */
export function withReferences(entry: Entry, map: ReferenceMap): Entry {
  const values = entry as unknown as Readonly<Record<string, unknown>>;
  const changed = Object.entries(kindOf(entry.kind).fields).flatMap(
    ([name, { type }]): [string, unknown][] => {
      const value = values[name];
      if (value === undefined || value === null) return [];
      switch (type) {
        case 'series':
          return [[name, map.series(value as SeriesRef)]];
        case 'result':
          return [[name, map.result(value as ResultRef)]];
        case 'region':
          return [[name, map.region(value as string)]];
        case 'regions':
          return [[name, (value as readonly string[]).map(map.region)]];
        case 'anchor':
          return [[name, { ...(value as Anchor), of: map.series((value as Anchor).of) }]];
        case 'formula': {
          const { text, names } = value as FormulaText;
          const renamed = Object.entries(names).map(([called, reference]) => [
            called,
            reference.startsWith('result:')
              ? map.result(reference as ResultRef)
              : map.series(reference as SeriesRef),
          ]);
          return [[name, { text, names: Object.fromEntries(renamed) as FormulaText['names'] }]];
        }
        default:
          return [];
      }
    },
  );
  const { toldIn } = entry;
  const told =
    toldIn === undefined
      ? {}
      : {
          toldIn: Object.fromEntries(
            Object.entries(toldIn).map(([of, code]) => [map.series(of as SeriesRef), code]),
          ),
        };
  return { ...entry, ...Object.fromEntries(changed), ...told } as Entry;
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
