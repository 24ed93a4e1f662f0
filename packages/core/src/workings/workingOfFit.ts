import { parsed } from '../formula/parsed';
import { sameName } from '../formula/names';
import { texFormula, texName } from '../formula/typeset';
import { type Letters } from '../fitting/relation';
import { powerOfUnit } from '../units/unit';
import { type NamedResult, type Working } from './outcome';
import { type FittedSelection } from './kinds/fitting';
import { type Part, partOf, symbolOf, texPart, workingBy } from './working';

/**
 * How the parameters of a fit come about: the relation in letters, the same with what was found, and what was made least. What
 * follows from parameters is worked out from them.
 * @param place which of its named parameters
 * @param constants what else stands in the relation
 */
export function workingOfFit(
  letters: Letters,
  { fit, series, against }: FittedSelection,
  results: readonly NamedResult[],
  place: number,
  constants: Readonly<Record<string, Part>> = {},
): Working {
  const { of, further = [], formula: text } = letters;
  const parts: Record<string, Part> = { ...constants };
  of.forEach((letter, i) => (parts[letter] = partOf(results[i])));
  if (place >= of.length) {
    return workingBy(texName(results[place].name), further[place - of.length], parts);
  }
  const formula = parsed(text);
  const isAxis = (letter: string) =>
    [series.symbol, against.symbol].some((symbol) => sameName(symbol) === sameName(letter));
  /** A letter that is an axis already gets another foot. */
  const called = (letter: string) => (isAxis(letter) ? `${letter}_0` : letter);
  const shown = (name: string) => {
    if (of.includes(name)) return texName(called(name));
    return sameName(name) === 'x' && !Object.hasOwn(parts, name) ? symbolOf(against.symbol) : undefined;
  };
  const left = symbolOf(series.symbol);
  // Weighed by their uncertainties, points are counted in these.
  const isWeighed = fit.reason === 'weighted';
  const rest = `{${left}}_i-${left}`;
  const least = isWeighed
    ? `\\sum_{i=1}^{${fit.count}} \\left(\\frac{${rest}}{u_i}\\right)^2 \\to \\min`
    : `\\sum_{i=1}^{${fit.count}} \\left(${rest}\\right)^2 = ${texPart({ value: fit.residualSumOfSquares, unit: powerOfUnit(series.unit, 2) }, 3)} \\to \\min`;
  return {
    formula: `${left} = ${texFormula(formula, shown)}`,
    putIn: `${left} = ${texFormula(formula, (name) =>
      Object.hasOwn(parts, name) ? texPart(parts[name], 4) : shown(name),
    )}`,
    least,
    says: [
      ...of.flatMap((letter, i) =>
        letter === results[i].name
          ? []
          : [`${sameName(called(letter)).replace('_0', '₀')} is the ${results[i].name}.`],
      ),
      `Together they make the sum of the squares of what is left over the least${isWeighed ? ', each point counted by its uncertainty' : ''}.`,
    ].join(' '),
  };
}
