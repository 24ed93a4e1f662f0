import { type Unit, printedAtom } from '../units/unit';
import { functions } from './functions';
import { greekName, nameParts } from './names';
import { type Formula } from './tree';

/** What stands for a name where it is typeset; its own letters where nothing is said. */
export type TypesetName = (name: string) => string | undefined;

const special: Readonly<Record<string, string>> = {
  '\\': '\\textbackslash{}',
  '{': '\\{',
  '}': '\\}',
  $: '\\$',
  '&': '\\&',
  '#': '\\#',
  _: '\\_',
  '%': '\\%',
  '~': '\\textasciitilde{}',
  '^': '\\textasciicircum{}',
};

/** Text of people, so that nothing in it is a command. */
export const texText = (text: string): string => text.replace(/[\\{}$&#_%~^]/g, (letter) => special[letter]);

const upright = (text: string) => `\\mathrm{${texText(text)}}`;

/** A name in TeX: one letter in italics, Greek by its command, longer words upright, what stands low set low. */
export function texName(name: string): string {
  const { stem, index } = nameParts(name);
  if (/\s/.test(stem) || /\s/.test(index)) return `\\text{${texText(name)}}`;
  const greek = greekName(stem);
  // TeX has no commands for Greek capitals that look like Latin ones.
  const letter =
    greek === undefined || /^(Upsilon|iota|upsilon)$/.test(greek)
      ? [...stem].length === 1
        ? texText(stem)
        : upright(stem)
      : `\\${greek}`;
  return index === ''
    ? letter
    : `${letter}_{${/^\d+$/.test(index) || index.length === 1 ? index : upright(index)}}`;
}

/** A unit in TeX: upright, with thin spaces. */
export const texUnit = (unit: Unit): string =>
  unit
    .map(({ atom, power }) => `${upright(printedAtom(atom))}${power === 1 ? '' : `^{${power}}`}`)
    .join('\\,');

/** A number in TeX, powers of ten written out. */
export function texNumber(value: number): string {
  const [digits, exponent] = String(value).split('e');
  return exponent === undefined ? digits : `${digits}\\times 10^{${Number(exponent)}}`;
}

const tightness = { sum: 1, difference: 1, negative: 1, product: 2, quotient: 3, power: 4 } as const;

const tightnessOf = (formula: Formula): number =>
  formula.kind === 'quotient' && formula.left.kind === 'negative'
    ? 1
    : formula.kind in tightness
      ? tightness[formula.kind as keyof typeof tightness]
      : formula.kind === 'number' && (formula.unit !== null || String(formula.value).includes('e'))
        ? 2
        : 5;

const bracketed = (tex: string) => `\\left(${tex}\\right)`;

/** A formula in TeX, as it is printed in a book. */
export function texFormula(formula: Formula, called: TypesetName = () => undefined): string {
  const tex = (part: Formula) => texFormula(part, called);
  const named = (name: string) => called(name) ?? texName(name);
  const inner = (part: Formula, least: number) => {
    const own = tightnessOf(part);
    // A number that is put in for a name has a sign or a unit to be kept with.
    const isPutIn = part.kind === 'name' && /^-|^[\d.].*\\mathrm/.test(called(part.name) ?? '');
    return own < least || (isPutIn && least > 1) ? bracketed(tex(part)) : tex(part);
  };
  switch (formula.kind) {
    case 'number':
      return formula.unit === null
        ? texNumber(formula.value)
        : `${texNumber(formula.value)}\\,${texUnit(formula.unit)}`;
    case 'name':
      return named(formula.name);
    case 'negative':
      return `-${inner(formula.of, 2)}`;
    case 'sum':
      return `${tex(formula.left)}+${inner(formula.right, formula.right.kind === 'negative' ? 2 : 1)}`;
    case 'difference':
      return `${tex(formula.left)}-${inner(formula.right, 2)}`;
    case 'product': {
      const [left, right] = [inner(formula.left, 2), inner(formula.right, 2)];
      const needsDot = /^[\d.]/.test(right) || formula.left.kind === 'call';
      return `${left}${needsDot ? '\\cdot ' : '\\,'}${right}`;
    }
    case 'quotient':
      return formula.left.kind === 'negative'
        ? `-\\frac{${tex(formula.left.of)}}{${tex(formula.right)}}`
        : `\\frac{${tex(formula.left)}}{${tex(formula.right)}}`;
    case 'power':
      if (
        formula.left.kind === 'call' &&
        functions[formula.left.name].units === 'plain' &&
        isWhole(formula.right)
      )
        return `${functions[formula.left.name].tex}^{${tex(formula.right)}}${argumentsOf(formula.left.of, tex, called)}`;
      return `{${inner(formula.left, 5)}}^{${tex(formula.right)}}`;
    case 'call': {
      const { tex: command, units } = functions[formula.name];
      if (units === 'half' || units === 'third') return `${command}{${formula.of.map(tex).join(',')}}`;
      if (formula.name === 'abs') return `\\left|${formula.of.map(tex).join(',')}\\right|`;
      if (formula.name === 'exp') return `\\mathrm{e}^{${formula.of.map(tex).join(',')}}`;
      return `${command}${argumentsOf(formula.of, tex, called)}`;
    }
    case 'derivative': {
      const raised = formula.order === 1 ? '' : '^{2}';
      const of = formula.of.kind === 'name' ? tex(formula.of) : bracketed(tex(formula.of));
      return `\\frac{\\mathrm{d}${raised}${of}}{\\mathrm{d}${named(formula.by)}${raised}}`;
    }
  }
}

const isWhole = (formula: Formula) =>
  formula.kind === 'number' && formula.unit === null && Number.isInteger(formula.value);

const argumentsOf = (of: readonly Formula[], tex: (part: Formula) => string, called: TypesetName) =>
  of.length === 1 &&
  ((of[0].kind === 'name' && called(of[0].name) === undefined) ||
    (of[0].kind === 'number' && of[0].unit === null))
    ? ` ${tex(of[0])}`
    : bracketed(of.map(tex).join(',\\,'));
