import {
  acos,
  asin,
  atan,
  atan2,
  cbrt,
  cos,
  cosh,
  exp,
  log,
  log10,
  sin,
  sinh,
  square,
  tan,
  tanh,
} from '../elementary';
/** What a function asks of the dimension of its arguments, and what it gives. */
export type FunctionUnits =
  /** Plain numbers (or angles) in, a plain number out. */
  | 'plain'
  /** A plain number in, an angle out. */
  | 'angle'
  /** Two of a kind in, an angle out. */
  | 'ratio'
  /** Anything in, the same out; of several arguments all measure the same. */
  | 'same'
  /** Anything in, a plain number out. */
  | 'sign'
  /** The exponents of the dimension are divided by two or three. */
  | 'half'
  | 'third';

/** A function that formulas may use, of one number or of two. */
export interface FormulaFunction {
  units: FunctionUnits;
  /** How it is typeset: a TeX command of its own, or its name in upright letters. */
  tex: string;
  arity: 1 | 2;
  value(a: number, b: number): number;
  /** Partial derivatives. */
  byFirst(a: number, b: number): number;
  bySecond?(a: number, b: number): number;
}

const ofOne = (
  units: FunctionUnits,
  tex: string,
  value: (a: number) => number,
  byFirst: (a: number) => number,
): FormulaFunction => ({ units, tex, arity: 1, value, byFirst });

const { sqrt, abs, sign } = Math;

/** Every function of formulas, by the name that is typed. */
export const functions = {
  sin: ofOne('plain', '\\sin', sin, cos),
  cos: ofOne('plain', '\\cos', cos, (a) => -sin(a)),
  tan: ofOne('plain', '\\tan', tan, (a) => 1 / square(cos(a))),
  asin: ofOne('angle', '\\arcsin', asin, (a) => 1 / sqrt(1 - a * a)),
  acos: ofOne('angle', '\\arccos', acos, (a) => -1 / sqrt(1 - a * a)),
  atan: ofOne('angle', '\\arctan', atan, (a) => 1 / (1 + a * a)),
  atan2: {
    units: 'ratio',
    tex: '\\operatorname{atan2}',
    arity: 2,
    value: atan2,
    byFirst: (a, b) => b / (a * a + b * b),
    bySecond: (a, b) => -a / (a * a + b * b),
  },
  sinh: ofOne('plain', '\\sinh', sinh, cosh),
  cosh: ofOne('plain', '\\cosh', cosh, sinh),
  tanh: ofOne('plain', '\\tanh', tanh, (a) => 1 - square(tanh(a))),
  exp: ofOne('plain', '\\exp', exp, exp),
  ln: ofOne('plain', '\\ln', log, (a) => 1 / a),
  lg: ofOne('plain', '\\lg', log10, (a) => 1 / (a * Math.LN10)),
  sqrt: ofOne('half', '\\sqrt', sqrt, (a) => 0.5 / sqrt(a)),
  cbrt: ofOne('third', '\\sqrt[3]', cbrt, (a) => 1 / (3 * square(cbrt(a)))),
  abs: ofOne('same', '\\operatorname{abs}', abs, sign),
  sign: ofOne('sign', '\\operatorname{sign}', sign, () => 0),
  min: {
    units: 'same',
    tex: '\\min',
    arity: 2,
    value: Math.min,
    byFirst: (a, b) => (a <= b ? 1 : 0),
    bySecond: (a, b) => (a <= b ? 0 : 1),
  },
  max: {
    units: 'same',
    tex: '\\max',
    arity: 2,
    value: Math.max,
    byFirst: (a, b) => (a >= b ? 1 : 0),
    bySecond: (a, b) => (a >= b ? 0 : 1),
  },
  hypot: {
    units: 'same',
    tex: '\\operatorname{hypot}',
    arity: 2,
    value: Math.hypot,
    byFirst: (a, b) => a / Math.hypot(a, b),
    bySecond: (a, b) => b / Math.hypot(a, b),
  },
} satisfies Record<string, FormulaFunction>;

export type FunctionName = keyof typeof functions;

export const functionNames = Object.keys(functions) as FunctionName[];

/** Other spellings of the same functions. */
const spellings: Readonly<Record<string, FunctionName>> = {
  arcsin: 'asin',
  arccos: 'acos',
  arctan: 'atan',
  log10: 'lg',
  tg: 'tan',
  sgn: 'sign',
  '√': 'sqrt',
};

export const functionNamed = (name: string): FunctionName | undefined =>
  Object.hasOwn(functions, name)
    ? (name as FunctionName)
    : Object.hasOwn(spellings, name)
      ? spellings[name]
      : undefined;
