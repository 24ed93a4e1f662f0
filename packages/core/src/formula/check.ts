import { isTemperature } from '../units/conversion';
import {
  type TemperatureKind,
  asPoint,
  kelvinEither,
  kelvinInterval,
  kelvinPoint,
  temperatureKind,
} from '../units/temperature';
import { type Unit, one, parseUnit, powerOfUnit, printedUnit } from '../units/unit';
import { type Dimension, measured, plain, productUnit, shownUnit } from './dimension';
import { FormulaFault } from './fault';
import { functions } from './functions';
import { isPi } from './names';
import { plainValue } from './plainValue';
import { temperaturesIn } from './temperatures';
import { type Formula, namesIn, partsOf } from './tree';
import { type Affine, DimensionSolver, added, affine, scaled, unknown } from './unknownDimensions';

/** What a formula measures. */
export interface Checked {
  dimension: Dimension;
  /** In which it is shown where nobody asks for another; of a temperature it says whether it is a point or an interval. */
  unit: Unit;
  /** The units of names that had none, as far as the formula tells them; null where it does not. */
  found: Map<string, Unit | null>;
}

interface Part {
  dimension: Affine;
  /** The units as they were written into it; null where they are lost. */
  written: Unit | null;
}

const radian = parseUnit('rad');

/**
 * Checks that only what measures the same is added, that exponents and arguments are plain numbers, and tells in which unit
 * the whole is.
 * @param text the formula as it was typed, of which faults cite parts
 * @param unitOf unit of a name; undefined where the formula is to tell it
 * @param result what the whole must measure, where that is known
 * @throws FormulaFault that says which part has which unit
 */
export function checkUnits(
  formula: Formula,
  text: string,
  unitOf: (name: string) => Unit | undefined,
  result?: Unit,
): Checked {
  const solver = new DimensionSolver();
  const names = new Set<string>();
  const cited = ({ from, to }: Formula) => `“${text.slice(from, to).trim()}”`;
  const inUnit = ({ dimension, written }: Part) => {
    const known = solver.settled(dimension);
    if (known === null) return 'in a unit that is still open';
    return known.size === 0 && (written ?? one).length === 0
      ? 'a plain number'
      : `in ${printedUnit(shownUnit(written, known))}`;
  };
  const must = (same: Affine, whenNot: () => FormulaFault) => {
    if (!solver.demand(same)) throw whenNot();
  };
  const plainPart = (part: Formula, why: string): Part => {
    const found = look(part);
    must(
      found.dimension,
      () => new FormulaFault(`${cited(part)} is ${inUnit(found)}; ${why}`, part.from, part.to),
    );
    return found;
  };
  const alike = (whole: Formula, left: Formula, right: Formula, verb: string): Part => {
    const [a, b] = [look(left), look(right)];
    must(
      added(a.dimension, b.dimension, -1),
      () =>
        new FormulaFault(
          `${cited(left)} is ${inUnit(a)}, but ${cited(right)} is ${inUnit(b)}; they cannot be ${verb}.`,
          whole.from,
          whole.to,
        ),
    );
    return a.written === null ? { ...a, written: b.written } : a;
  };

  const look = (part: Formula): Part => {
    switch (part.kind) {
      case 'number': {
        const unit = part.unit ?? one;
        return { dimension: affine(measured(unit).dimension), written: unit };
      }
      case 'name': {
        const unit = isPi(part.name) ? one : unitOf(part.name);
        if (unit !== undefined) return { dimension: affine(measured(unit).dimension), written: unit };
        names.add(part.name);
        return { dimension: unknown(part.name), written: null };
      }
      case 'negative':
        return look(part.of);
      case 'sum':
        return alike(part, part.left, part.right, 'added');
      case 'difference':
        return alike(part, part.left, part.right, 'subtracted');
      case 'product':
      case 'quotient': {
        const [a, b] = [look(part.left), look(part.right)];
        const sign = part.kind === 'product' ? 1 : -1;
        return {
          dimension: added(a.dimension, b.dimension, sign),
          written: a.written === null || b.written === null ? null : productUnit(a.written, b.written, sign),
        };
      }
      case 'power': {
        const base = look(part.left);
        const exponent = plainValue(part.right);
        if (exponent !== null)
          return {
            dimension: scaled(base.dimension, exponent),
            written:
              base.written === null || !Number.isInteger(exponent)
                ? null
                : powerOfUnit(base.written, exponent),
          };
        plainPart(part.right, 'an exponent is a plain number.');
        if (solver.settled(base.dimension)?.size === 0) return { dimension: affine(plain), written: one };
        if (namesIn(part.right).every((name) => unitOf(name) !== undefined))
          throw new FormulaFault(
            `${cited(part.left)} is ${inUnit(base)}; raised to something that is not one fixed number it has no unit. Divide it by a quantity of its kind first.`,
            part.left.from,
            part.left.to,
          );
        // A parameter in the exponent: what stands before it takes whatever unit makes the whole right.
        return { dimension: unknown(`${part.from}^`), written: null };
      }
      case 'call':
        return callPart(part);
      case 'derivative': {
        const of = look(part.of);
        const by = look({ kind: 'name', name: part.by, from: part.from, to: part.to });
        return {
          dimension: added(of.dimension, by.dimension, -part.order),
          written:
            of.written === null || by.written === null
              ? null
              : productUnit(of.written, by.written, -part.order),
        };
      }
    }
  };
  const callPart = ({ name, of }: Extract<Formula, { kind: 'call' }>): Part => {
    const { units } = functions[name];
    const [first, second] = of;
    switch (units) {
      case 'plain':
      case 'angle': {
        const isAngle = ['sin', 'cos', 'tan'].includes(name);
        for (const argument of of)
          plainPart(argument, `${name} takes ${isAngle ? 'an angle or ' : ''}a plain number.`);
        return { dimension: affine(plain), written: units === 'angle' ? radian : one };
      }
      case 'ratio':
        alike(first, first, second, 'compared');
        return { dimension: affine(plain), written: radian };
      case 'same':
        return second === undefined ? look(first) : alike(first, first, second, 'compared');
      case 'sign':
        look(first);
        return { dimension: affine(plain), written: one };
      case 'half':
      case 'third': {
        const { dimension, written } = look(first);
        const share = units === 'half' ? 1 / 2 : 1 / 3;
        const isWhole = written?.every(({ power }) => Number.isInteger(power * share)) === true;
        return { dimension: scaled(dimension, share), written: isWhole ? powerOfUnit(written, share) : null };
      }
    }
  };

  const whole = look(formula);
  if (result !== undefined)
    must(
      added(whole.dimension, affine(measured(result).dimension), -1),
      () =>
        new FormulaFault(
          `This is ${inUnit(whole)}, not in ${printedUnit(result) === '' ? 'plain numbers' : printedUnit(result)}.`,
          formula.from,
          formula.to,
        ),
    );
  const dimension = solver.settled(whole.dimension) ?? plain;
  const found = new Map(
    [...names].map((name): [string, Unit | null] => {
      const solved = solver.settled(unknown(name));
      return [name, solved === null ? null : shownUnit(null, solved)];
    }),
  );
  const unit = shownUnit(whole.written, dimension);
  return withTemperatures({ dimension, unit, found }, formula, text, unitOf, result);
}

/** Tells which temperatures are points on a scale. @throws FormulaFault where they do not go together */
function withTemperatures(
  { dimension, unit, found }: Checked,
  formula: Formula,
  text: string,
  unitOf: (name: string) => Unit | undefined,
  result: Unit | undefined,
): Checked {
  const open = [...found].flatMap(([name, foundUnit]) =>
    foundUnit !== null && isTemperature(foundUnit) ? [name] : [],
  );
  const wanted = result === undefined ? null : temperatureKind(result);
  const { kind, points } = temperaturesIn(formula, text, unitOf, open, wanted);
  const scale = scalesIn(formula, unitOf)[0];
  const pointUnit = asPoint(result !== undefined && wanted === 'point' ? result : (scale ?? kelvinPoint));
  const asKind: Record<TemperatureKind, Unit> = {
    point: pointUnit,
    interval: kelvinInterval,
    either: kelvinEither,
  };
  return {
    dimension,
    unit: isTemperature(unit) ? asKind[kind] : unit,
    found: new Map(
      [...found].map(([name, foundUnit]) => [
        name,
        open.includes(name) ? (points.has(name) ? pointUnit : kelvinInterval) : foundUnit,
      ]),
    ),
  };
}

/** The units of the points on scales of temperature that a formula speaks of, in their order. */
function scalesIn(formula: Formula, unitOf: (name: string) => Unit | undefined): Unit[] {
  const own =
    formula.kind === 'number'
      ? (formula.unit ?? one)
      : formula.kind === 'name' && !isPi(formula.name)
        ? (unitOf(formula.name) ?? one)
        : one;
  return temperatureKind(own) === 'point'
    ? [own]
    : partsOf(formula).flatMap((part) => scalesIn(part, unitOf));
}
