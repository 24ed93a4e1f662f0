import { parsed } from '../formula/parsed';
import { namesIn } from '../formula/tree';
import { Refusal, orRefusal } from '../refusal';
import { indexAfter, indexAtOrAfter } from '../series/sampling';
import { type Series } from '../series/series';
import { type Entry, completeEntry, kindOf } from './entries';
import { usesOf } from './fields';
import { unitsHere } from './givenUnits';
import { type Context, type RegionBounds } from './kind';
import { type SeriesRef } from './references';

/**
 * Everything that decides an outcome beside the entry's own words, read off the declared fields: the series it speaks of,
 * the readings that its region holds, the results it uses. An interval that is settled is described by its ends alone, so that
 * readings that come later do not touch it.
 */
export function inputsOf(
  entry: Entry,
  context: Omit<Context, 'before'>,
): { inputs: unknown[]; lineages: unknown[]; series: Series[]; region: RegionBounds | null } {
  const { fields, yields, beyond = 0 } = kindOf(entry.kind);
  const values = completeEntry(entry) as unknown as Readonly<Record<string, unknown>>;
  const named = Object.entries(fields);
  const uses = named.map(([name, field]) => usesOf(field, values[name]));
  const regions = uses.flatMap((one) => one.regions ?? []).map((id) => context.region(id));
  const anchors = uses.flatMap((one) => one.anchors ?? []);
  // What speaks of one region only hangs on the readings in there; what looks elsewhere too hangs on all of them.
  const isWithin =
    yields === 'results' &&
    regions.length > 0 &&
    regions.slice(1).every((other) => other === null) &&
    anchors.length === 0;
  const region = isWithin ? regions[0] : null;
  const lineages: unknown[] = [];
  const all: Series[] = [];
  const rest: unknown[] = [];
  // Names that mean nothing are the parameters of a fit; those that were when it was typed are not looked for.
  const parameters = uses.find((one) => one.parameters !== undefined)?.parameters;
  let first: Series | undefined;
  const addSeries = (reference: SeriesRef) => {
    const series = context.series(reference, first);
    first ??= series;
    all.push(series);
    lineages.push(series.lineage);
    rest.push(...intervalOf(series, region, beyond));
  };
  for (const [i, [name, field]] of named.entries()) {
    const { series = [], results = [], formulas = [] } = uses[i];
    // The axis that a region lies on does not decide where it lies; what it is cut by does.
    const decides =
      yields !== 'region' || (field.type === 'series' && field.none !== undefined && values[name] !== 't');
    if (decides) series.forEach(addSeries);
    for (const reference of results) rest.push(context.result(reference));
    for (const { text, names } of formulas) {
      if (text === '') continue;
      for (const called of namesIn(parsed(text))) {
        if (parameters !== undefined && Object.hasOwn(parameters, called)) continue;
        const meant =
          parameters === undefined
            ? context.named(called, names)
            : orRefusal(() => context.named(called, names));
        if (meant instanceof Refusal) rest.push(null);
        else if (meant.kind === 'series') addSeries(meant.reference);
        else rest.push(meant.result);
      }
    }
  }
  for (const { of } of anchors) addSeries(of);
  rest.push(...unitsHere(entry, context.series));
  for (const bounds of regions) {
    if (bounds === null) continue;
    rest.push(bounds.start, bounds.end);
    if (bounds.along !== 't') addSeries(bounds.along);
  }
  return { inputs: [...lineages, ...rest], lineages, series: all, region: regions[0] ?? null };
}

function intervalOf(series: Series, region: RegionBounds | null, beyond: number): unknown[] {
  if (region === null || region.along !== 't') return [series.values.length];
  const more = beyond * (region.end - region.start);
  const first = indexAtOrAfter(series.sampling, region.start - more);
  const past = indexAfter(series.sampling, region.end + more);
  // One reading more than the region holds: an area looks beyond its end.
  return past + 4 < series.settled ? [first, past] : [first, past, series.values.length];
}
