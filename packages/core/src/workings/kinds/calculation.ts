import { measured } from '../../formula/dimension';
import { isPi } from '../../formula/names';
import { type Formula } from '../../formula/tree';
import { texFormula, texName } from '../../formula/typeset';
import { FormulaFault } from '../../formula/fault';
import { Refusal } from '../../refusal';
import { combined } from '../../results/combined';
import { type Quantity } from '../../results/quantity';
import { type Drawn, drawsOf, summaryOfDraws } from '../../results/drawn';
import { type FormulaText, formulaField, textField } from '../fields';
import { type Meanings, type Understood, understood, wantedUnit } from '../formulas';
import { type Context, defineKind } from '../kind';
import { type NamedResult } from '../outcome';
import { partOf, texPart } from '../working';

/**
 * A result worked out from other results, constants and conditions, by a formula that somebody typed. Its uncertainty is
 * first-order propagation (JCGM 100:2008, 5.1 and 5.2): what moves the parts is added root by root.
 */
export const calculation = defineKind({
  kind: 'calculation',
  title: 'result by a formula',
  yields: 'results',
  offered: 'sheet',
  offers: [{ title: 'Result by a formula', preset: {} }],
  fields: { formula: formulaField('Formula'), unit: textField('Shown in', 40) },
  customaryName: () => 'r',
  sentence: ({ formula: { text } }) => text,
  evaluate({ name, formula, unit: asked }, context) {
    const { quantity, speaking, parts } = calculated({ formula, unit: asked }, context);
    const called = (leaf: string) => {
      if (isPi(leaf)) return undefined;
      const meant = speaking.named(leaf);
      return meant.kind === 'result' ? texPart(partOf(meant.result), 4) : undefined;
    };
    return {
      kind: 'results',
      results: [
        {
          key: 'value',
          name: name === '' ? 'value' : name,
          quantity,
          roundTo: null,
          main: true,
          working: () => ({
            formula: `${name === '' ? '' : `${texName(name)} = `}${texFormula(speaking.formula)}`,
            putIn: `= ${texFormula(speaking.formula, called)}`,
          }),
        },
      ],
      notes: [...new Set(parts)]
        .filter(({ quantity: part, roundTo }) => part.standardUncertainty === null && roundTo !== null)
        .map((part) => `The ${part.name} has no uncertainty of its own; it counts as exact here.`),
      fitted: null,
    };
  },
});

/**
 * What a formula says of the numbers that its names stand for, with all that moves them.
 * @param context what its names mean
 * @throws Refusal where it has no value, FormulaFault where a name means nothing or units disagree
 */
export function calculated(
  asked: { formula: FormulaText; unit: string },
  context: Meanings,
): { quantity: Quantity; speaking: Understood; parts: NamedResult[] } {
  const { speaking, unit, out, parts, inputs } = reckoningOf(asked, context);
  const { program } = speaking;
  const [si] = program.values(inputs, 0, 1);
  const value = si / out.factor - out.zero;
  if (!Number.isFinite(value))
    throw new Refusal(
      'This has no value: something is divided by zero here, or a root or logarithm is taken of something negative.',
    );
  const quantity = combined(
    value,
    unit,
    parts.map((part, leaf) => ({
      quantity: part.quantity,
      derivative:
        part.quantity.standardUncertainty === null ? 0 : program.partials(inputs, leaf, 0, 1)[0] / out.factor,
    })),
  );
  if (Number.isNaN(quantity.standardUncertainty))
    throw new Refusal('The uncertainty of this has no value: the formula has no slope here.');
  return { quantity, speaking, parts };
}

/** A formula with the numbers that stand in it. @throws Refusal */
function reckoningOf({ formula, unit: asked }: { formula: FormulaText; unit: string }, context: Meanings) {
  const speaking = understood(formula, context);
  const { unit, measured: out } = wantedUnit(asked, speaking.checked);
  const parts = speaking.program.leaves.map(({ formula: leaf }) => partNamed(leaf, speaking));
  const inputs = parts.map(({ quantity }) => {
    const { factor, zero } = measured(quantity.unit);
    return { values: quantity.value as number | Float64Array, factor, zero };
  });
  return { speaking, unit, out, parts, inputs };
}

/** What many draws of what stands in the formula say of it, in the unit in which it is shown (JCGM 101:2008). @throws Refusal */
export function drawnCalculation(
  entry: { formula: FormulaText; unit: string },
  context: Context,
  count: number,
): Drawn {
  const { speaking, out, parts, inputs } = reckoningOf(entry, context);
  const draws = drawsOf(
    parts.map(({ quantity }) => quantity),
    count,
  );
  const values = speaking.program.values(
    inputs.map((input, i) => ({ ...input, values: draws[i] })),
    0,
    count,
  );
  return summaryOfDraws(values.map((si) => si / out.factor - out.zero));
}

/** What a leaf stands for, which has to be one number. @throws FormulaFault */
function partNamed(
  leaf: Extract<Formula, { kind: 'name' | 'derivative' }>,
  { named }: Understood,
): NamedResult {
  if (leaf.kind === 'derivative')
    throw new FormulaFault(
      'A derivative is a series. Make it a series by a formula, or take the slope in a region.',
      leaf.from,
      leaf.to,
    );
  const meant = named(leaf.name);
  if (meant.kind === 'result') return meant.result;
  throw new FormulaFault(
    `${leaf.name} is a series here, and has no one value. Make this a series by a formula, or take the mean of ${leaf.name} in a region.`,
    leaf.from,
    leaf.to,
  );
}
