import { printedUnit } from '../units/unit';
import { functionNamed } from './functions';
import { plainName } from './names';
import { tokensOf } from './tokens';
import { type Formula } from './tree';

/** How tightly each kind of part binds. */
const tightness = {
  sum: 1,
  difference: 1,
  product: 2,
  quotient: 2,
  negative: 3,
  power: 4,
  number: 5,
  name: 5,
  call: 5,
  // An exponent after it would be taken for its order.
  derivative: 4.5,
} as const;

const signs = { sum: '+', difference: '−', product: '·', quotient: '/' } as const;

/** A name as it is written in a formula: in braces where it would be read as something else. */
export const writtenName = (name: string): string =>
  plainName.test(name) && functionNamed(name) === undefined && name !== 'log' ? name : `{${name}}`;

/** A formula as text that is read as the same formula. */
export function printFormula(formula: Formula): string {
  const inner = (part: Formula, least: number) =>
    tightness[part.kind] < least ? `(${printFormula(part)})` : printFormula(part);
  switch (formula.kind) {
    case 'number':
      return formula.unit === null
        ? String(formula.value)
        : `${formula.value} [${printedUnit(formula.unit)}]`;
    case 'name':
      return writtenName(formula.name);
    case 'negative':
      return `−${inner(formula.of, tightness.negative)}`;
    case 'sum':
    case 'difference':
    case 'product':
    case 'quotient': {
      const own = tightness[formula.kind];
      return `${inner(formula.left, own)} ${signs[formula.kind]} ${inner(formula.right, own + 1)}`;
    }
    case 'power':
      return `${inner(formula.left, tightness.number)}^${inner(formula.right, tightness.negative)}`;
    case 'call':
      return `${formula.name}(${formula.of.map(printFormula).join(', ')})`;
    case 'derivative': {
      const order = formula.order === 1 ? '' : '^2';
      return `d${order}(${printFormula(formula.of)})/d(${writtenName(formula.by)})${order}`;
    }
  }
}

/**
 * The same text with other names in it; all else stands as it was typed. Text that cannot be read is left as it is.
 * @param called the new name for a name, or undefined where it keeps its own
 */
export function withNames(text: string, called: (name: string) => string | undefined): string {
  let tokens;
  try {
    tokens = tokensOf(text);
  } catch {
    return text;
  }
  let out = '';
  let done = 0;
  for (const token of tokens) {
    if (token.kind !== 'name' || (!token.isBraced && functionNamed(token.name) !== undefined)) continue;
    const name = called(token.name);
    if (name === undefined || name === token.name) continue;
    out += text.slice(done, token.from) + writtenName(name);
    done = token.to;
  }
  return out + text.slice(done);
}
