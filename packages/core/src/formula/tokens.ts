import { functionNamed, functions } from './functions';
import { type Unit, parseUnit } from '../units/unit';
import { measureOfUnit } from '../units/conversion';
import { FormulaFault } from './fault';
import { type Place } from './tree';

export type Token = Place &
  (
    | { kind: 'number'; value: number }
    | { kind: 'name'; name: string; isBraced: boolean }
    | { kind: 'unit'; unit: Unit }
    | { kind: 'sign'; sign: '+' | '-' | '*' | '/' | '^' | '(' | ')' | ',' }
    /** Digits set high: x². */
    | { kind: 'raised'; value: number }
    | { kind: 'end' }
  );

/** More than anybody can read in one line. */
export const mostCharacters = 500;

const signs: Readonly<Record<string, '+' | '-' | '*' | '/' | '^' | '(' | ')' | ','>> = {
  '+': '+',
  '-': '-',
  '−': '-',
  '–': '-',
  '*': '*',
  '·': '*',
  '⋅': '*',
  '∙': '*',
  '×': '*',
  '/': '/',
  '÷': '/',
  '∕': '/',
  '^': '^',
  '(': '(',
  ')': ')',
  ',': ',',
};

const raisedDigits = '⁰¹²³⁴⁵⁶⁷⁸⁹';
const numberPattern = /(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+\-−]?\d+)?/y;
const tenthsPattern = /,\d+(?:[eE][+\-−]?\d+)?(?!,\d)/y;
const namePattern = /(?:\p{L}[\p{L}\d_₀-₉'′]*|√)/uy;
const raisedPattern = /⁻?[⁰¹²³⁴-⁹]+/y;
const spacePattern = /\s+/y;

/**
 * The words of a formula.
 * @throws FormulaFault at what is no word of the language
 */
export function tokensOf(text: string): Token[] {
  if (text.length > mostCharacters)
    throw new FormulaFault(
      `A formula has at most ${mostCharacters} characters; this one has ${text.length}. Make it of several entries.`,
      mostCharacters,
      text.length,
    );
  const tokens: Token[] = [];
  /** Of every bracket that is open: whether a comma in it stands between two arguments. */
  const open: boolean[] = [];
  let at = 0;
  const taken = (pattern: RegExp): string | null => {
    pattern.lastIndex = at;
    return pattern.exec(text)?.[0] ?? null;
  };
  while (at < text.length) {
    const from = at;
    const space = taken(spacePattern);
    if (space !== null) {
      at += space.length;
      continue;
    }
    const number = taken(numberPattern);
    if (number !== null) {
      at += number.length;
      // A comma right between digits is a decimal sign, but where it stands between two arguments: max(1,5).
      const tenths = open.at(-1) !== true && /^\d+$/.test(number) ? taken(tenthsPattern) : null;
      at += tenths?.length ?? 0;
      const plain = tenths === null ? number : `${number}${tenths.replace(',', '.')}`;
      tokens.push({ kind: 'number', value: numberIn(plain, from, at), from, to: at });
      continue;
    }
    const name = taken(namePattern);
    if (name !== null) {
      at += name.length;
      tokens.push({ kind: 'name', name, isBraced: false, from, to: at });
      continue;
    }
    const raised = taken(raisedPattern);
    if (raised !== null) {
      at += raised.length;
      const digits = [...raised].map((digit) => (digit === '⁻' ? '-' : String(raisedDigits.indexOf(digit))));
      tokens.push({ kind: 'raised', value: Number(digits.join('')), from, to: at });
      continue;
    }
    const character = text[at];
    if (character === '{' || character === '[') {
      const end = text.indexOf(character === '{' ? '}' : ']', at);
      const inner = end < 0 ? '' : text.slice(at + 1, end).trim();
      if (inner === '')
        throw new FormulaFault(
          character === '{'
            ? 'A name in braces, like {period of the swing}, needs a name and a closing brace.'
            : 'A unit in brackets, like 9.81 [m/s²], needs a unit and a closing bracket.',
          from,
          end < 0 ? text.length : end + 1,
        );
      at = end + 1;
      tokens.push(
        character === '{'
          ? { kind: 'name', name: inner, isBraced: true, from, to: at }
          : { kind: 'unit', unit: unitIn(inner, from, at), from, to: at },
      );
      continue;
    }
    if (text.startsWith('**', at)) {
      at += 2;
      tokens.push({ kind: 'sign', sign: '^', from, to: at });
      continue;
    }
    if (!Object.hasOwn(signs, character))
      throw new FormulaFault(
        character === '='
          ? 'A formula is what stands on the right of the equals sign; its name stands on the left, once.'
          : `“${String.fromCodePoint(text.codePointAt(at) ?? 0)}” means nothing in a formula. Use names, numbers, + − * / ^ and brackets ( ).`,
        from,
        from + 1,
      );
    if (character === '(') open.push(isBeforeTwo(tokens.at(-1)));
    if (character === ')') open.pop();
    at++;
    tokens.push({ kind: 'sign', sign: signs[character], from, to: at });
  }
  tokens.push({ kind: 'end', from: text.length, to: text.length });
  return tokens;
}

/** Whether a bracket behind that word holds the two arguments of a function. */
function isBeforeTwo(word: Token | undefined): boolean {
  const name = word?.kind === 'name' && !word.isBraced ? functionNamed(word.name) : undefined;
  return name !== undefined && functions[name].arity === 2;
}

function numberIn(text: string, from: number, to: number): number {
  const value = Number(text.replace('−', '-'));
  if (!Number.isFinite(value))
    throw new FormulaFault(`${text} is beyond the largest number (1.8 × 10³⁰⁸).`, from, to);
  return value;
}

function unitIn(text: string, from: number, to: number): Unit {
  const unit = parseUnit(text);
  if (measureOfUnit(unit) === undefined)
    throw new FormulaFault(
      `“${text}” is no unit that is known here. Units are written like m/s², N m, kg m s^-2 or in.`,
      from,
      to,
    );
  return unit;
}
