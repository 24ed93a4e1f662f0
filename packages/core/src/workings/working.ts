import { parsed } from '../formula/parsed';
import { texFormula, texName, texUnit } from '../formula/typeset';
import { writeResult } from '../results/rounding';
import { type Unit } from '../units/unit';
import { type NamedResult, type Working } from './outcome';

/** What stands for a letter of a formula. */
export interface Part {
  value: number;
  unit: Unit;
  /** By which it is rounded, as it is shown. */
  standardUncertainty?: number | null;
}

/** A number with its unit in TeX, rounded by its uncertainty, or to `figures` digits. */
export function texPart({ value, unit, standardUncertainty = null }: Part, figures = 5): string {
  const number =
    standardUncertainty === null ? texExact(value, figures) : texUncertain(value, standardUncertainty);
  return unit.length === 0 ? number : `${number}\\,${texUnit(unit)}`;
}

/** What is counted is written in full; very large and small numbers by a power of ten. */
function texExact(value: number, figures: number): string {
  const size = Math.abs(value);
  if (Number.isInteger(value) && size < 1e9) return String(value);
  if (size >= 1e-4 && size < 1e6) return String(Number(value.toPrecision(figures)));
  const [digits, exponent] = value.toExponential(figures - 1).split('e');
  return `${Number(digits)}\\times 10^{${Number(exponent)}}`;
}

function texUncertain(value: number, standardUncertainty: number): string {
  const written = writeResult(value, standardUncertainty);
  const digits = written.value.replace('−', '-');
  return written.exponent === 0 ? digits : `${digits}\\times 10^{${written.exponent}}`;
}

export const partOf = ({ quantity: { value, unit, standardUncertainty } }: NamedResult): Part => ({
  value,
  unit,
  standardUncertainty,
});

/**
 * A formula and the same with numbers put in.
 * @param left what is worked out, in TeX
 * @param text a formula in letters, as formulas are typed
 * @param parts what stands for them; a letter without is itself
 * @param letters how letters are typeset where not as they are typed
 */
export function workingBy(
  left: string,
  text: string,
  parts: Readonly<Record<string, Part>>,
  letters: Readonly<Record<string, string>> = {},
): Working {
  const formula = parsed(text);
  const put = (name: string) => (Object.hasOwn(parts, name) ? texPart(parts[name]) : letters[name]);
  return {
    formula: `${left} = ${texFormula(formula, (name) => letters[name])}`,
    putIn: `= ${texFormula(formula, put)}`,
  };
}

/** Results with how they come about, by their keys; others are read off and not worked out. */
export const withWorkings = (
  results: readonly NamedResult[],
  workings: Readonly<Record<string, () => Working>>,
): NamedResult[] =>
  results.map((result) =>
    Object.hasOwn(workings, result.key) ? { ...result, working: workings[result.key] } : result,
  );

/** A symbol in TeX; with an index at its foot. */
export const symbolOf = (name: string, index = ''): string =>
  index === '' ? texName(name) : `{${texName(name)}}_{${index}}`;

/** The mean of a symbol in TeX. */
export const meanOfSymbol = (name: string): string => `\\overline{${texName(name)}}`;
