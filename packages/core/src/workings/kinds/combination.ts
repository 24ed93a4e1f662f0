import { measured } from '../../formula/dimension';
import { Refusal } from '../../refusal';
import { texName } from '../../formula/typeset';
import { type Part, combined } from '../../results/combined';
import { type Quantity } from '../../results/quantity';
import { intervalUnit, kelvinEither, temperatureKind } from '../../units/temperature';
import { canConvert, conversionFactor } from '../../units/conversion';
import { type Unit, divideUnits, multiplyUnits, printedUnit } from '../../units/unit';
import { choiceField, resultField } from '../fields';
import { defineKind } from '../kind';
import { type NamedResult } from '../outcome';
import { partOf, workingBy } from '../working';

type Operation = 'sum' | 'difference' | 'product' | 'quotient';

const signs: Record<Operation, string> = { sum: '+', difference: '−', product: '×', quotient: '÷' };
const operations = Object.keys(signs) as Operation[];

/**
 * Two results of other entries, added, subtracted, multiplied or divided. What both owe to the same readings or the same
 * constant counts once, with its sign. A second unit that measures the same is brought into the first.
 */
export const combination = defineKind({
  kind: 'combination',
  title: 'combination',
  yields: 'results',
  offered: 'sheet',
  offers: operations.map((operation) => ({
    title: `${operation[0].toUpperCase()}${operation.slice(1)} of two results`,
    preset: { operation },
  })),
  fields: {
    first: resultField('First'),
    operation: choiceField<Operation>(
      'Is',
      operations.map((key) => ({
        key,
        title: { sum: 'plus', difference: 'minus', product: 'times', quotient: 'divided by' }[key],
      })),
    ),
    second: resultField('Second'),
  },
  sentence: ({ first, operation, second }, nameOf) =>
    `${bracketed(nameOf(first))} ${signs[operation]} ${bracketed(nameOf(second))}`,
  evaluate({ first: firstRef, operation, second: secondRef }, context) {
    const [first, second] = [context.result(firstRef), context.result(secondRef)];
    const [a, b] = [first.quantity, second.quantity];
    const { value, unit, byX, byY, perB } = combinedValues(operation, first, second);
    const parts: Part[] = [
      { quantity: a, derivative: byX },
      { quantity: b, derivative: perB * byY },
    ];
    return {
      kind: 'results',
      results: [
        {
          // The same whatever is done, so that others may speak of it.
          key: 'value',
          name: operation,
          quantity: combined(value, unit, parts),
          roundTo: null,
          main: true,
          working: () =>
            workingBy(
              texName(operation),
              { sum: 'a + b', difference: 'a - b', product: 'a b', quotient: 'a/b' }[operation],
              { a: partOf(first), b: partOf(second) },
              { a: texName(first.name), b: texName(second.name) },
            ),
        },
      ],
      notes: [...new Set([first, second])]
        .filter(({ quantity, roundTo }) => quantity.standardUncertainty === null && roundTo !== null)
        .map((result) => `${named(result)} has no uncertainty of its own; it counts as exact here.`),
      fitted: null,
    };
  },
});

/** A value of two others, with its derivatives by them as they count in it, and by how much the second one is scaled for that. */
interface Combined {
  value: number;
  unit: Unit;
  byX: number;
  byY: number;
  perB: number;
}

/** @throws Refusal where the two have no such combination */
function combinedValues(operation: Operation, first: NamedResult, second: NamedResult): Combined {
  const [a, b] = [first.quantity, second.quantity];
  if (temperatureKind(a.unit) === 'point' || temperatureKind(b.unit) === 'point')
    return ofTemperatures(operation, first, second);
  const isOfOneKind = canConvert(b.unit, a.unit);
  if (!isOfOneKind && (operation === 'sum' || operation === 'difference'))
    throw new Refusal(
      `${named(first)} is in ${unitText(a.unit)} and ${named(second)} in ${unitText(b.unit)}; they have no ${operation}. Multiply or divide them, or choose results that measure the same.`,
    );
  const perB = isOfOneKind ? conversionFactor(b.unit, a.unit) : 1;
  const [x, y] = [a.value, perB * b.value];
  const unitOfY = isOfOneKind ? a.unit : b.unit;
  switch (operation) {
    case 'sum':
      return { value: x + y, unit: a.unit, byX: 1, byY: 1, perB };
    case 'difference':
      return { value: x - y, unit: a.unit, byX: 1, byY: -1, perB };
    case 'product':
      return { value: x * y, unit: multiplyUnits(a.unit, unitOfY), byX: y, byY: x, perB };
    case 'quotient':
      if (y === 0) throw new Refusal(`${named(second)} is 0, and nothing can be divided by it.`);
      return { value: x / y, unit: divideUnits(a.unit, unitOfY), byX: 1 / y, byY: -x / (y * y), perB };
  }
}

/** A temperature on a scale, combined with something else: differences stand alone, products and quotients are of kelvin. */
function ofTemperatures(operation: Operation, first: NamedResult, second: NamedResult): Combined {
  const [a, b] = [first.quantity, second.quantity];
  const kinds = [temperatureKind(a.unit), temperatureKind(b.unit)];
  const factorOf = (unit: Unit) => measured(unit).factor;
  const kelvinOf = ({ value, unit }: Quantity) => factorOf(unit) * (value + measured(unit).zero);
  if (operation === 'product' || operation === 'quotient') {
    const [x, y] = [a, b].map((one) => (temperatureKind(one.unit) === null ? one.value : kelvinOf(one)));
    const [p, q] = [a.unit, b.unit].map((unit) => (temperatureKind(unit) === null ? 1 : factorOf(unit)));
    const [inX, inY] = [a.unit, b.unit].map((unit) => (temperatureKind(unit) === null ? unit : kelvinEither));
    if (operation === 'product')
      return { value: x * y, unit: multiplyUnits(inX, inY), byX: p * y, byY: x, perB: q };
    if (y === 0) throw new Refusal(`${named(second)} is 0, and nothing can be divided by it.`);
    return { value: x / y, unit: divideUnits(inX, inY), byX: p / y, byY: -x / (y * y), perB: q };
  }
  if (kinds.some((kind) => kind === null))
    throw new Refusal(
      `${named(first)} is in ${unitText(a.unit)} and ${named(second)} in ${unitText(b.unit)}; they have no ${operation}. Multiply or divide them, or choose results that measure the same.`,
    );
  const isPoint = kinds.map((kind) => kind === 'point');
  if (operation === 'sum' && isPoint[0] && isPoint[1])
    throw new Refusal(
      `${named(first)} and ${named(second)} are both temperatures on a scale, which cannot be added. Take their difference, or add a difference in K.`,
    );
  if (operation === 'difference' && kinds[0] === 'interval')
    throw new Refusal(
      `${named(second)} is a temperature on a scale, which cannot be taken off a difference of temperatures. Change their order.`,
    );
  // Kelvin that may be either are a point where a point is taken off them, and an interval otherwise.
  const isInterval = operation === 'difference' && isPoint[1];
  const sign = operation === 'sum' ? 1 : -1;
  const unit = isInterval ? intervalUnit(a.unit) : isPoint[0] ? a.unit : b.unit;
  const [p, q] = [factorOf(a.unit) / factorOf(unit), factorOf(b.unit) / factorOf(unit)];
  const value = isInterval
    ? (kelvinOf(a) - kelvinOf(b)) / factorOf(unit)
    : isPoint[0]
      ? a.value + sign * q * b.value
      : p * a.value + b.value;
  return { value, unit, byX: p, byY: sign, perB: q };
}

/** What is itself a combination stands in brackets. */
const bracketed = (name: string) =>
  Object.values(signs).some((sign) => name.includes(` ${sign} `)) ? `(${name})` : name;

const named = ({ name }: NamedResult) => `The ${name}`;

const unitText = (unit: Unit) => (unit.length === 0 ? 'plain numbers' : printedUnit(unit));
