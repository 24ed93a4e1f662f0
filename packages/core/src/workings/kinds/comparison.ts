import { square } from '../../elementary';
import { measured } from '../../formula/dimension';
import { Refusal } from '../../refusal';
import { texName } from '../../formula/typeset';
import { combined } from '../../results/combined';
import { type Quantity } from '../../results/quantity';
import { raised, writeResult } from '../../results/rounding';
import { inCases } from '../../results/chances';
import { chanceBeyond } from '../../statistics/significance';
import { canConvert, conversionFactor } from '../../units/conversion';
import { intervalUnit, temperatureKind } from '../../units/temperature';
import { type Unit, printedUnit, sameUnit } from '../../units/unit';
import { resultField } from '../fields';
import { defineKind } from '../kind';
import { type NamedResult } from '../outcome';
import { partOf, withWorkings, workingBy } from '../working';

/**
 * Two results held against each other, or one against an accepted value that stands as a constant: how far apart they are, and
 * whether their uncertainties explain it. What both owe to the same readings or the same constant counts once, with its sign.
 */
export const comparison = defineKind({
  kind: 'comparison',
  title: 'comparison',
  yields: 'results',
  concludes: true,
  offered: 'sheet',
  offers: [{ title: 'Comparison of two results', preset: {} }],
  fields: { first: resultField('Compare'), second: resultField('with') },
  sentence: ({ first, second }, nameOf) => `${nameOf(first)} compared with ${nameOf(second)}`,
  evaluate({ first: firstRef, second: secondRef }, context) {
    const [first, second] = [context.result(firstRef), context.result(secondRef)];
    const [a, b] = [first.quantity, second.quantity];
    const { from, apart, base, unit, per } = held(first, second);
    const difference = combined(apart, unit, [
      { quantity: a, derivative: from },
      { quantity: b, derivative: -per },
    ]);
    const share =
      base === 0
        ? null
        : combined((100 * apart) / Math.abs(base), percent, [
            { quantity: a, derivative: (100 * from) / Math.abs(base) },
            {
              quantity: b,
              derivative: (-100 * per * (apart + base) * Math.sign(base)) / square(base),
            },
          ]);
    const letters = { a: texName(first.name), b: texName(second.name) };
    return {
      kind: 'results',
      results: withWorkings(
        [
          { key: 'difference', name: 'difference', quantity: difference, roundTo: null, main: true },
          ...(share === null
            ? []
            : [{ key: 'share', name: 'difference in %', quantity: share, roundTo: null, main: false }]),
        ],
        {
          difference: () => workingBy('\\Delta', 'a - b', { a: partOf(first), b: partOf(second) }, letters),
          share: () =>
            workingBy('\\delta', '100 (a - b)/abs(b)', { a: partOf(first), b: partOf(second) }, letters),
        },
      ),
      notes: [verdict(difference)],
      fitted: null,
    };
  },
});

/** How far two quantities are apart, and whether they agree, in words. @throws Refusal where they do not measure the same */
export function compared(
  first: Pick<NamedResult, 'name' | 'quantity'>,
  second: Pick<NamedResult, 'name' | 'quantity'>,
): { difference: Quantity; words: string } {
  const { from, apart, unit, per } = held(first, second);
  const difference = combined(apart, unit, [
    { quantity: first.quantity, derivative: from },
    { quantity: second.quantity, derivative: -per },
  ]);
  return { difference, words: verdict(difference) };
}

/** How far two results are apart, in one unit. */
interface Held {
  apart: number;
  unit: Unit;
  /** The second one, counted from nothing: of a temperature from absolute zero. */
  base: number;
  /** By how much the difference grows with the first one, and falls with the second. */
  from: number;
  per: number;
}

/** @throws Refusal where they do not measure the same */
function held(
  first: Pick<NamedResult, 'name' | 'quantity'>,
  second: Pick<NamedResult, 'name' | 'quantity'>,
): Held {
  const [a, b] = [first.quantity, second.quantity];
  const kinds = [temperatureKind(a.unit), temperatureKind(b.unit)];
  if (kinds.includes('point') && !kinds.includes(null) && !kinds.includes('interval')) {
    const unit = intervalUnit(a.unit);
    const { factor } = measured(unit);
    const [x, y] = [a, b].map((one) => {
      const own = measured(one.unit);
      return { value: (own.factor * (one.value + own.zero)) / factor, per: own.factor / factor };
    });
    // On one scale by its own numbers, so that nothing is lost in rounding.
    const apart = sameUnit(a.unit, b.unit) ? a.value - b.value : x.value - y.value;
    return { apart, unit, base: y.value, from: x.per, per: y.per };
  }
  const isPlain = a.unit.length === 0 && b.unit.length === 0;
  if (kinds.includes('point') || (!isPlain && !canConvert(b.unit, a.unit)))
    throw new Refusal(
      `The ${first.name} is in ${unitText(a.unit)} and the ${second.name} in ${unitText(b.unit)}; only what measures the same can be compared.`,
    );
  const per = isPlain ? 1 : conversionFactor(b.unit, a.unit);
  const base = per * b.value;
  return { apart: a.value - base, unit: a.unit, base, from: 1, per };
}

const percent: Unit = [{ atom: '%', power: 1 }];

/** Below the first they agree, below the second they may, below the third hardly: chances of 1, 2 and 3 σ of a normal distribution. */
const limits = [0.3173, 0.0455, 0.0027] as const;

/** Whether two values agree, in words: by how often chance makes such a difference (JCGM 100:2008, annex G; Student's t). */
function verdict({ value, standardUncertainty, degreesOfFreedom, unit }: Quantity): string {
  const amount = (number: number) => {
    const { value: digits, exponent } = writeResult(number, null, 2);
    return `${digits}${exponent === 0 ? '' : ` × 10${raised(exponent)}`} ${printedUnit(unit)}`.trim();
  };
  if (standardUncertainty === null || !(standardUncertainty > 0) || Number.isNaN(degreesOfFreedom))
    return value === 0
      ? 'They are the same; neither has an uncertainty.'
      : 'Neither has an uncertainty, so it cannot be said whether they agree.';
  const times = Math.abs(value) / standardUncertainty;
  const chance = chanceBeyond(times, degreesOfFreedom);
  const apart = `they are ${amount(Math.abs(value))} apart, and the standard uncertainty of that is ${amount(standardUncertainty)}`;
  const often = `chance alone makes a difference as large in ${inCases(chance)}`;
  if (chance > limits[0]) return `They agree within their uncertainties: ${apart}; ${often}.`;
  if (chance > limits[1]) return `They are compatible: ${apart}; ${often}.`;
  if (chance > limits[2]) return `They hardly agree: ${apart}; ${often}.`;
  return `They differ: ${apart}; ${often}.`;
}

const unitText = (unit: Unit) => (unit.length === 0 ? 'plain numbers' : printedUnit(unit));
