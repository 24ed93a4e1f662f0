import { checkUnits } from '../../formula/check';
import { FormulaFault } from '../../formula/fault';
import { sameName } from '../../formula/names';
import { parsed, programOf } from '../../formula/parsed';
import { hasDerivative, namesIn } from '../../formula/tree';
import { typedRelation } from '../../fitting/models/typed';
import {
  type ParameterSetting,
  type TypedFunction,
  type TypedParameter,
  usualSetting,
} from '../../fitting/models/typedFunction';
import { unitInAxes } from '../../fitting/models/axisPowers';
import { Refusal, orRefusal } from '../../refusal';
import { type SharedEffect } from '../../series/series';
import { conversionBetween } from '../../units/conversion';
import { type Unit, parseUnit, printedUnit, sameUnit } from '../../units/unit';
import {
  type FormulaText,
  axisField,
  flagField,
  formulaField,
  parametersField,
  regionField,
  seriesField,
} from '../fields';
import { type Context, type Named, defineKind } from '../kind';
import { type NamedResult } from '../outcome';
import { type SeriesRef } from '../references';
import { partOf } from '../working';
import { fitOutcome } from './fitOutcome';
import { type FittedSelection, drawnFields, fitInRegion, weightsField } from './fitting';

/** A fit of a relation that somebody typed: names that stand for nothing else are its parameters. */
export const formulaFit = defineKind({
  kind: 'formulaFit',
  title: 'fit of a formula',
  yields: 'results',
  draws: 'curve',
  offered: 'region',
  offers: [{ title: 'fit of a formula', preset: {} }],
  fields: {
    formula: formulaField('Formula'),
    of: seriesField(),
    against: axisField(),
    region: regionField(),
    parameters: parametersField('Parameters'),
    weights: weightsField,
    showResiduals: flagField('Show residuals'),
    ...drawnFields,
  },
  sentence: ({ formula: { text }, of, against }, nameOf) =>
    `${nameOf(of)} = ${text === '' ? '…' : text}${against === 't' ? '' : ` against ${nameOf(against)}`}`,
  evaluate(entry, context) {
    const { text, relation, constants, parameters } = relationTyped(entry, context);
    const fitted = fitInRegion(relation, entry, context);
    const unknown = parameters.filter(({ unit, held }) => unit === null && !held).map(({ name }) => name);
    if (unknown.length > 0)
      fitted.notes.push(
        `The formula does not tell the unit of ${unknown.join(' and ')}: the number holds for values in SI units.`,
      );
    return fitOutcome(text, fitted, {
      letters: relation.letters,
      further: sharedByConstants(relation.function, fitted, constants),
      constants: Object.fromEntries([...constants].map(([name, result]) => [name, partOf(result)])),
    });
  },
});

interface TypedEntry {
  formula: FormulaText;
  of: SeriesRef;
  against: SeriesRef;
  parameters: Readonly<Record<string, ParameterSetting>>;
}

/** The relation that a typed formula is, with the constants in it. @throws Refusal */
export function relationTyped(entry: TypedEntry, context: Context) {
  const { text, names } = entry.formula;
  const formula = parsed(text);
  const series = context.series(entry.of);
  const against = context.series(entry.against, series);
  if (hasDerivative(formula))
    throw new FormulaFault('A relation is fitted without derivatives.', formula.from, formula.to);
  const constants = new Map<string, NamedResult>();
  const open: string[] = [];
  for (const name of namesIn(formula)) {
    if (sameName(name) === sameName(against.symbol)) continue;
    // What was a parameter when the formula was typed stays one, whatever is called so later.
    const meant = Object.hasOwn(entry.parameters, name) ? null : meaningOf(name, names, context);
    if (meant === null) open.push(name);
    else if (meant.kind === 'result') constants.set(name, meant.result);
    else
      throw new FormulaFault(
        `${name} is a series here, and a relation is fitted against ${against.symbol} alone. Take ${name} as a parameter, or fit against it.`,
        formula.from,
        formula.to,
      );
  }
  const { found } = checkUnits(
    formula,
    text,
    (name) =>
      sameName(name) === sameName(against.symbol) ? against.unit : constants.get(name)?.quantity.unit,
    series.unit,
  );
  const parameters = open.map((name): TypedParameter => {
    const unit = unitOfParameter(found.get(name) ?? null, against.unit, series.unit);
    const setting = Object.hasOwn(entry.parameters, name) ? entry.parameters[name] : usualSetting;
    return { ...settingIn(unit, setting, name), name, unit };
  });
  for (const { name, low, high } of parameters)
    if (low !== null && high !== null && !(high > low))
      throw new Refusal(`The least value of ${name} must be below its greatest, not ${low} and ${high}.`);
  const relation = typedRelation({
    text,
    program: programOf(text),
    xName: against.symbol,
    xUnit: against.unit,
    yUnit: series.unit,
    parameters,
    constants: [...constants].map(([name, { quantity }]) => ({
      name,
      value: quantity.value,
      unit: quantity.unit,
    })),
  });
  return { text, relation, constants, parameters };
}

/** What was said of a parameter, in the unit that it has in this run. @throws Refusal where it is of another kind here */
function settingIn(
  unit: Unit | null,
  { toldIn, ...setting }: ParameterSetting,
  name: string,
): Omit<TypedParameter, 'name' | 'unit'> {
  const givenUnit = parseUnit(toldIn ?? '');
  if (toldIn === undefined || unit === null || sameUnit(givenUnit, unit)) return setting;
  const conversion = conversionBetween(givenUnit, unit);
  if (conversion === null)
    throw new Refusal(
      `${name} is found in ${printedUnit(unit) || 'plain numbers'} here, and what was said of it is in ${printedUnit(givenUnit)}. Type its start and its limits anew.`,
    );
  const read = (value: number | null) =>
    value === null ? null : conversion.factor * value + conversion.offset;
  return { ...setting, start: read(setting.start), low: read(setting.low), high: read(setting.high) };
}

const unitOfParameter = (unit: Unit | null, x: Unit, y: Unit) =>
  unit === null ? null : unitInAxes(unit, x, y);

/** What a name stands for; null where it stands for nothing, and is found by the fit. */
function meaningOf(name: string, bound: Parameters<Context['named']>[1], context: Context): Named | null {
  const found = orRefusal(() => context.named(name, bound));
  if (!(found instanceof Refusal)) return found;
  // What it was bound to is gone, or has no value: that is a fault, and no parameter.
  if (Object.hasOwn(bound, name)) throw found;
  return null;
}

/** A constant in the formula that is uncertain moves all values together, the other way round. */
function sharedByConstants(
  typed: TypedFunction,
  { fit, selection, origin }: FittedSelection,
  constants: ReadonlyMap<string, NamedResult>,
): SharedEffect[] {
  const x = origin === null ? selection.x : selection.x.map((place) => place - origin);
  return [...constants].flatMap(([name, { quantity }]) => {
    if (quantity.standardUncertainty === null) return [];
    const effect = typed.byConstant(fit.parameters, name, x).map((value) => -value);
    return quantity.influences().map(({ root, label, effect: by }) => ({ root, label, by, effect }));
  });
}
