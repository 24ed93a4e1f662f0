import { Refusal } from '../../refusal';
import { texName } from '../../formula/typeset';
import { type Part, combined } from '../../results/combined';
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
    const isOfOneKind = canConvert(b.unit, a.unit);
    if (!isOfOneKind && (operation === 'sum' || operation === 'difference'))
      throw new Refusal(
        `${named(first)} is in ${unitText(a.unit)} and ${named(second)} in ${unitText(b.unit)}; they have no ${operation}. Multiply or divide them, or choose results that measure the same.`,
      );
    const factor = isOfOneKind ? conversionFactor(b.unit, a.unit) : 1;
    const [x, y] = [a.value, factor * b.value];
    if (operation === 'quotient' && y === 0)
      throw new Refusal(`${named(second)} is 0, and nothing can be divided by it.`);
    const unitOfY = isOfOneKind ? a.unit : b.unit;
    const { value, unit, byX, byY } = {
      sum: () => ({ value: x + y, unit: a.unit, byX: 1, byY: 1 }),
      difference: () => ({ value: x - y, unit: a.unit, byX: 1, byY: -1 }),
      product: () => ({ value: x * y, unit: multiplyUnits(a.unit, unitOfY), byX: y, byY: x }),
      quotient: () => ({ value: x / y, unit: divideUnits(a.unit, unitOfY), byX: 1 / y, byY: -x / (y * y) }),
    }[operation]();
    const parts: Part[] = [
      { quantity: a, derivative: byX },
      { quantity: b, derivative: factor * byY },
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

/** What is itself a combination stands in brackets. */
const bracketed = (name: string) =>
  Object.values(signs).some((sign) => name.includes(` ${sign} `)) ? `(${name})` : name;

const named = ({ name }: NamedResult) => `The ${name}`;

const unitText = (unit: Unit) => (unit.length === 0 ? 'plain numbers' : printedUnit(unit));
