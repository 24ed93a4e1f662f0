import { Refusal } from '../refusal';
import { type Series } from '../series/series';
import { conversionBetween } from '../units/conversion';
import { intervalUnit } from '../units/temperature';
import { parseUnit, printedUnit, ucumCode } from '../units/unit';
import { type Entry, completeEntry, fieldsOf } from './entries';
import { type FieldValues, type Fields, unitSeriesOf, valueInUnits } from './fields';
import { type Context, type EntryBase } from './kind';
import { type SeriesRef } from './references';

type Values = Readonly<Record<string, unknown>>;

/** Every series that an entry tells numbers of: levels, ends, widths. */
export function seriesWithNumbers(entry: Entry): SeriesRef[] {
  const values = completeEntry(entry) as unknown as Values;
  const found = fieldsOf(entry).map(([name, field]) => unitSeriesOf(field, values[name], values));
  return [...new Set(found.filter((of) => of !== null))];
}

/** Asks for the series that entries speak of. @throws Refusal */
type SeriesOf = (reference: SeriesRef) => Series;

/**
 * An entry as its kind wants it, with its numbers in the units of this run, whatever units they were given in.
 * @throws Refusal where a series is missing here, or measures something else than what was given
 */
export function inUnitsOfRun(
  entry: Entry,
  { runId, series: seriesOf }: Pick<Context, 'runId' | 'series'>,
): EntryBase & FieldValues<Fields> {
  const whole = completeEntry(entry);
  const { toldIn } = entry;
  if (toldIn === undefined) return whole;
  const values = whole as unknown as Values;
  const patch = fieldsOf(entry).flatMap(([name, field]): [string, unknown][] => {
    const value = values[name];
    const of = unitSeriesOf(field, value, values);
    const code = of === null ? undefined : toldIn[of];
    if (of === null || code === undefined) return [];
    const read = (number: number, isWidth: boolean) => readOf(number, code, seriesOf(of), isWidth);
    const here = valueInUnits(field, value, { runId, read });
    return here === undefined ? [] : [[name, here]];
  });
  // Numbers stand for numbers, anchors for anchors, which the type system cannot follow through the look-up.
  return patch.length === 0 ? whole : ({ ...whole, ...Object.fromEntries(patch) } as typeof whole);
}

/** The units, in this run, of what an entry tells numbers of: they decide what these mean here. @throws Refusal */
export const unitsHere = (entry: Entry, seriesOf: SeriesOf): string[] =>
  entry.toldIn === undefined
    ? []
    : seriesWithNumbers(entry)
        .filter((of) => entry.toldIn?.[of] !== undefined)
        .map((of) => ucumCode(seriesOf(of).unit));

function readOf(number: number, code: string, { symbol, unit }: Series, isWidth: boolean): number {
  const givenUnit = parseUnit(code);
  const conversion = isWidth
    ? conversionBetween(intervalUnit(givenUnit), intervalUnit(unit))
    : conversionBetween(givenUnit, unit);
  if (conversion === null)
    throw new Refusal(
      `${symbol} is measured in ${printedUnit(unit) || 'plain numbers'} here, and ${shown(number)} ${printedUnit(givenUnit)} was typed of it. Type it anew, or choose another series.`,
    );
  return conversion.factor * number + conversion.offset;
}

const shown = (value: number) => String(Number(value.toPrecision(5))).replace('-', '−');

/**
 * An entry that says in which unit its numbers are told, of each series of which it did not say so yet; what it no longer tells
 * numbers of is left out.
 * @param unitOf the UCUM code of the unit that a person sees of a series; null where nobody knows
 */
export function withUnitsGiven(entry: Entry, unitOf: (reference: SeriesRef) => string | null): Entry {
  const known = entry.toldIn ?? {};
  const units = seriesWithNumbers(entry).flatMap((of): [string, string][] => {
    const code = known[of] ?? unitOf(of);
    return code === null ? [] : [[of, code]];
  });
  const isSame =
    units.length === Object.keys(known).length && units.every(([of, code]) => known[of] === code);
  if (isSame) return entry;
  const rest = Object.fromEntries(Object.entries(entry).filter(([name]) => name !== 'toldIn'));
  return {
    ...rest,
    ...(units.length === 0 ? {} : { toldIn: Object.fromEntries(units) }),
  } as unknown as Entry;
}
