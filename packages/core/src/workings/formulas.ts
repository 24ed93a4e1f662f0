import { type Checked, checkUnits } from '../formula/check';
import { type Measured, measured } from '../formula/dimension';
import { FormulaFault } from '../formula/fault';
import { parsed, programOf } from '../formula/parsed';
import { Program } from '../formula/program';
import { type Formula, hasDerivative, namesIn, withParts } from '../formula/tree';
import { Refusal } from '../refusal';
import { canConvert } from '../units/conversion';
import { kelvinPoint, temperatureKind } from '../units/temperature';
import { type Unit, parseUnit, printedUnit } from '../units/unit';
import { type FormulaText } from './fields';
import { type Context, type Named } from './kind';
import { type SeriesRef } from './references';

/** A formula of the sheet, read, with its units checked and all its names found. */
export interface Understood {
  formula: Formula;
  program: Program;
  checked: Checked;
  named(name: string): Named;
}

/** What names in a formula mean, and the series behind them. */
export type Meanings = Pick<Context, 'named' | 'series'>;

/** What a formula speaks of in one run. @throws Refusal where a name means nothing, FormulaFault where units disagree */
export function understood({ text, names }: FormulaText, context: Meanings): Understood {
  const typed = parsed(text);
  const known = new Map<string, Named>();
  const named = (name: string) => {
    let found = known.get(name);
    if (found === undefined) known.set(name, (found = context.named(name, names)));
    return found;
  };
  const checked = checkedOnce(typed, text, (name) => unitOf(named(name), context));
  if (!hasDerivative(typed)) return { formula: typed, program: programOf(text), named, checked };
  const formula = alongAbscissa(typed, named);
  return { formula, program: new Program(formula), named, checked };
}

const mostKept = 200;
const kept = new Map<string, { units: Unit[]; checked: Checked }>();

/** Units are checked anew only where they are other ones than the last time: the runs of an investigation mostly have the same. */
function checkedOnce(typed: Formula, text: string, unitNamed: (name: string) => Unit): Checked {
  const units = namesIn(typed).map(unitNamed);
  const last = kept.get(text);
  if (last?.units.every((unit, i) => isSameAsWritten(unit, units[i])) === true) return last.checked;
  const checked = checkUnits(typed, text, unitNamed);
  if (kept.size >= mostKept) kept.clear();
  kept.set(text, { units, checked });
  return checked;
}

const isSameAsWritten = (a: Unit, b: Unit): boolean =>
  a === b ||
  (a.length === b.length &&
    a.every(
      ({ atom, power, scale }, i) => atom === b[i].atom && power === b[i].power && scale === b[i].scale,
    ));

/** Derivatives by another series as the quotient of two by the abscissa: dy/dx = (dy/dt)/(dx/dt). */
function alongAbscissa(formula: Formula, named: Understood['named']): Formula {
  const rebuilt = withParts(formula, (part) => alongAbscissa(part, named));
  if (rebuilt.kind !== 'derivative') return rebuilt;
  const by = named(rebuilt.by);
  const place = { from: rebuilt.from, to: rebuilt.to };
  if (by.kind === 'result')
    throw new FormulaFault(
      `${rebuilt.by} is one number; a derivative is taken by what changes along the run, like t.`,
      place.from,
      place.to,
    );
  if (by.reference === 't') return rebuilt;
  if (rebuilt.order === 2)
    throw new FormulaFault(
      `A second derivative is taken by the abscissa of the run only. Make d(…)/d(${rebuilt.by}) a series of its own first.`,
      place.from,
      place.to,
    );
  const along = (of: Formula): Formula => ({
    kind: 'derivative',
    of,
    by: abscissaSymbol,
    order: 1,
    ...place,
  });
  return {
    kind: 'quotient',
    left: along(rebuilt.of),
    right: along({ kind: 'name', name: rebuilt.by, ...place }),
    ...place,
  };
}

/** Stands for the abscissa where a derivative was turned into one by it. */
const abscissaSymbol = 't';

/** The unit of what a name stands for. */
export const unitOf = (named: Named, context: Pick<Context, 'series'>): Unit =>
  named.kind === 'result' ? named.result.quantity.unit : context.series(named.reference).unit;

/**
 * In which unit a formula is shown: the one that is asked for, or that of its own. A temperature on a scale can be shown on any
 * scale, a difference of temperatures in K, Δ°C or Δ°F.
 * @throws Refusal
 */
export function wantedUnit(asked: string, { unit }: Checked): { unit: Unit; measured: Measured } {
  if (asked.trim() === '') return { unit, measured: measured(unit) };
  const wanted = parseUnit(asked);
  const kinds = [temperatureKind(unit), temperatureKind(wanted)];
  if (kinds.every((kind) => kind !== null)) {
    if (kinds[0] === 'interval' && kinds[1] === 'point')
      throw new Refusal(
        `This is a difference of temperatures and no temperature on a scale. Show it in K, Δ°C or Δ°F, not in ${printedUnit(wanted)}.`,
      );
    if (kinds[0] === 'point' && kinds[1] === 'interval')
      throw new Refusal(
        `This is a temperature on a scale and no difference. Show it in °C, °F or K, not in ${printedUnit(wanted)}.`,
      );
    const shown = kinds[1] !== 'either' ? wanted : kinds[0] === 'point' ? kelvinPoint : unit;
    return { unit: shown, measured: measured(shown) };
  }
  const [own, other] = [measured(unit), measured(wanted)];
  if (!canConvert(wanted, unit) && !(own.dimension.size === 0 && other.dimension.size === 0))
    throw new Refusal(
      `This formula is in ${printedUnit(unit) === '' ? 'plain numbers' : printedUnit(unit)}, which cannot be shown in “${asked}”.`,
    );
  return { unit: wanted, measured: other };
}

/** The series that a formula speaks of, in the order in which they stand. */
export function seriesUsedBy({ formula, named }: Pick<Understood, 'formula' | 'named'>): SeriesRef[] {
  const found = new Set<SeriesRef>();
  for (const name of namesIn(formula)) {
    const meant = named(name);
    if (meant.kind === 'series') found.add(meant.reference);
  }
  return [...found];
}
