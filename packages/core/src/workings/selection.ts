import { Refusal } from '../refusal';
import { countIn, united } from '../series/ranges';
import { indexAfter, indexAtOrAfter, onOneGrid, timeAt } from '../series/sampling';
import { atTimesOf } from '../series/atTimesOf';
import { type Series, valuesAtTimesOf } from '../series/series';
import { printedUnit } from '../units/unit';
import { type Context, type RegionBounds } from './kind';
import { type SeriesRef } from './references';
import { type Selection } from './selected';

/** How many of the readings behind a part of a series were set aside. */
const asideIn = ({ noise }: Series, first: number, past: number): number =>
  countIn(noise?.root.aside ?? [], first, past);

/** How many points were set aside by one of their two readings, or by both. */
function asidePoints(of: Series, other: Series, first: number, past: number): number {
  const [own, across] = [of, other].map(({ noise }) => noise?.root.aside ?? []);
  if (onOneGrid(of.sampling, other.sampling)) return countIn(united(own, across), first, past);
  return countIn(own, first, past) + countIn(across, first, past);
}

/** Index range of a series in a region along the abscissa; the whole series without one. */
export function rangeIn(
  { sampling, values }: Series,
  region: RegionBounds | null,
): [first: number, past: number] {
  if (region === null || region.along !== 't') return [0, values.length];
  return [indexAtOrAfter(sampling, region.start), indexAfter(sampling, region.end)];
}

/** What to say of readings left out, in a list that is empty where none were. */
export function leftOutNotes({ missing, aside, isSingle }: Selection, count: number): string[] {
  const notes = missingNote(missing, count, isSingle);
  const one = isSingle ? 'value' : 'reading';
  if (aside > 0) notes.push(`${aside} ${aside === 1 ? `${one} was` : `${one}s were`} set aside.`);
  return notes;
}

function missingNote(missing: number, count: number, isSingle: boolean): string[] {
  if (missing === 0) return [];
  const [are, were] = missing === 1 ? ['is', 'it was'] : ['are', 'they were'];
  if (isSingle)
    return [`${missing} of ${missing + count} values ${are} missing or no measurement; ${were} left out.`];
  return [
    `${missing} of ${missing + count} readings ${are} missing or no measurement (at a limit, a wrong echo); ${were} left out.`,
  ];
}

/** What to say where a region reaches beyond what was recorded. */
export function reachNote({ sampling, values, timeUnit }: Series, region: RegionBounds | null): string[] {
  const n = values.length;
  if (region === null || region.along !== 't' || n === 0) return [];
  const unit = printedUnit(timeUnit);
  const shown = (at: number) => `${Number(at.toPrecision(5))}${unit === '' ? '' : ` ${unit}`}`;
  const [from, to] = [timeAt(sampling, 0), timeAt(sampling, n - 1)];
  // Less than a reading beyond the end is no shortening.
  const spare = n > 1 ? (to - from) / (n - 1) : 0;
  const notes: string[] = [];
  if (region.end > to + spare) notes.push(`The run ends at ${shown(to)}, before the region does.`);
  if (region.start < from - spare) notes.push(`The run begins at ${shown(from)}, after the region does.`);
  return notes;
}

/**
 * Picks the readings of `of` inside the region and pairs them with `against`.
 * @throws Refusal where the region holds no reading
 */
export function select(
  context: Context,
  of: Series,
  against: SeriesRef,
  region: RegionBounds | null,
): Selection {
  const key = region === null ? against : `${against} ${region.along} ${region.start} ${region.end}`;
  const { selections } = context;
  let ofSeries = selections.get(of);
  if (ofSeries === undefined) selections.set(of, (ofSeries = new Map()));
  let selection = ofSeries.get(key);
  if (selection === undefined) ofSeries.set(key, (selection = pick(context, of, against, region)));
  return selection;
}

function pick(context: Context, of: Series, against: SeriesRef, region: RegionBounds | null): Selection {
  const other = atTimesOf(context.series(against, of), of);
  const x = valuesAtTimesOf(other, of);
  const along =
    region === null || region.along === 't' ? null : valuesAtTimesOf(context.series(region.along, of), of);
  const [first, past] = rangeIn(of, region);
  const y = of.values;
  const indices = new Int32Array(Math.max(past - first, 0));
  let count = 0;
  let missing = 0;
  let asideMissing = 0;
  const isAside = (i: number) => [of, other].some((series) => asideIn(series, i, i + 1) > 0);
  // Most parts are whole.
  if (along === null && isWholeBetween(y, first, past) && isWholeBetween(x, first, past)) {
    for (let i = first; i < past; i++) indices[count++] = i;
  }
  for (let i = first + count; i < past; i++) {
    if (along !== null && region !== null && !(along[i] >= region.start && along[i] <= region.end)) continue;
    if (y[i] !== y[i] || x[i] !== x[i]) {
      missing++;
      if (isAside(i)) asideMissing++;
    } else indices[count++] = i;
  }
  const aside = asidePoints(of, other, first, past);
  if (count === 0)
    throw new Refusal(
      missing > 0
        ? 'All readings in this region are missing or no measurement (at a limit, wrong echoes). Choose another region.'
        : 'There is no reading in this region. Move it to where the trace is.',
    );
  const isWhole = count === past - first;
  const chosen = isWhole ? indices : indices.slice(0, count);
  const picked = (values: Float64Array) => {
    if (isWhole) return values.subarray(first, past);
    const out = new Float64Array(count);
    for (let i = 0; i < count; i++) out[i] = values[chosen[i]];
    return out;
  };
  return {
    x: picked(x),
    y: picked(y),
    indices: chosen,
    missing: missing - asideMissing,
    aside,
    noise: of.noise,
    // Of values that were taken one by one, differences between neighbours tell nothing.
    against: other.uncertainties === undefined ? other.noise : null,
    ...(of.further === undefined ? {} : { further: of.further }),
    ...(other.further === undefined ? {} : { furtherAgainst: other.further }),
    isSingle: of.uncertainties !== undefined,
    first: chosen[0],
    past: chosen[count - 1] + 1,
  };
}

/** Whether no value is missing: one that is makes any sum missing. */
function isWholeBetween(values: Float64Array, first: number, past: number): boolean {
  let [s0, s1] = [0, 0];
  for (let i = first; i < past; i += 2) {
    s0 += 0 * values[i];
    if (i + 1 < past) s1 += 0 * values[i + 1];
  }
  return s0 + s1 === 0;
}

/** Several selections of the same series as one; a reading that lies in two of them counts once. */
export function joined(parts: readonly Selection[]): Selection {
  const [first] = parts;
  if (parts.length === 1) return first;
  const values = new Map<number, [x: number, y: number]>();
  for (const { indices, x, y } of parts) indices.forEach((index, i) => values.set(index, [x[i], y[i]]));
  const indices = Int32Array.from(values.keys()).sort();
  const count = indices.length;
  return {
    ...first,
    indices,
    x: Float64Array.from(indices, (index) => values.get(index)?.[0] ?? NaN),
    y: Float64Array.from(indices, (index) => values.get(index)?.[1] ?? NaN),
    missing: parts.reduce((sum, { missing }) => sum + missing, 0),
    aside: parts.reduce((sum, { aside }) => sum + aside, 0),
    first: indices[0],
    past: indices[count - 1] + 1,
  };
}
