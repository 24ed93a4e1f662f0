import fc from 'fast-check';
import { orRefusal } from '../refusal';
import { parseUnit } from '../units/unit';
import { FormulaFault } from './fault';
import { functionNames, functions } from './functions';
import { sameName } from './names';
import { parseFormula } from './parse';
import { printFormula, withNames } from './print';
import { type Formula } from './tree';
import { repetitions } from '../testing/effort';
import { texFormula } from './typeset';

/** A formula without the places in its text. */
const shape = (formula: Formula): unknown =>
  JSON.parse(
    JSON.stringify(formula, (key, value: unknown) => (key === 'from' || key === 'to' ? undefined : value)),
  );

const same = (a: string, b: string) => expect(shape(parseFormula(a))).toEqual(shape(parseFormula(b)));

// The readings that follow from ISO 80000-1:2009, 7.1.3 (no solidus followed by a product without brackets) and 80000-2
// (powers before products before sums): values from memory.
test.each([
  ['1/2 m v^2', '((1/2) * m) * (v^2)'],
  ['1/2 m v^2 + m g (x0 - x) sin(theta)', '((1/2)*m*(v^2)) + (((m*g)*(x0-x))*sin(theta))'],
  ['-x^2', '-(x^2)'],
  ['2^-3^2', '2^(-(3^2))'],
  ['a - b - c', '(a - b) - c'],
  ['a / b / c', '(a / b) / c'],
  ['2π r / T', '((2 * π) * r) / T'],
  ['1/(2π) sqrt(k/m)', '(1/(2*π)) * sqrt(k/m)'],
  ['sin theta cos phi', 'sin(theta) * cos(phi)'],
  ['sin^2(x)', '(sin(x))^2'],
  ['v² t⁻¹', '(v^2) * (t^-1)'],
  ['3 × −2', '3 * (-2)'],
  ['√2 x', 'sqrt(2) * x'],
  ['1/sqrt(2) x', '(1/sqrt(2)) * x'],
  ['g(x0 - x)', 'g * (x0 - x)'],
  ['.5 x', '0.5 * x'],
])('%s is read as %s', (text, meant) => same(text, meant));

test('a derivative is told from a product with a quantity d', () => {
  expect(shape(parseFormula('d(x)/d(t)'))).toEqual({
    kind: 'derivative',
    of: { kind: 'name', name: 'x' },
    by: 't',
    order: 1,
  });
  expect(parseFormula('d^2(x)/d(t)^2')).toMatchObject({ kind: 'derivative', order: 2 });
  same('d(x) / 2', '(d * x) / 2');
  same('m d(v)/d(t)', 'm * (d(v)/d(t))');
});

test('a number carries its unit', () => {
  expect(parseFormula('71 [in]')).toMatchObject({ kind: 'number', value: 71, unit: parseUnit('in') });
  expect(parseFormula('9.81 [m/s²] t')).toMatchObject({
    kind: 'product',
    left: { unit: parseUnit('m.s-2') },
  });
});

test.each([
  ['', 'Type a formula', 0],
  ['1/2 m v^', 'ends where', 7],
  ['(a + b', 'not closed', 0],
  ['a + b)', 'closes nothing', 5],
  ['a / b c', 'two ways. Write a / (b c), or (a / b) c', 4],
  ['F / m (x0 - x)', 'Write F / (m (x0 - x))', 4],
  ['0, 5 m', 'is written 0.5 or 0,5', 1],
  ['log(x)', 'ln (base e) or lg', 0],
  ['sin', 'in brackets', 0],
  ['sin 2 x', 'not clear', 0],
  ['atan2(y)', 'two arguments', 0],
  ['3 [blargs]', 'no unit', 2],
  ['x [m]', 'right after a number', 2],
  ['a = b', 'on the right of the equals sign', 2],
  ['a $ b', 'means nothing', 2],
  ['* b', 'missing', 0],
  ['{', 'closing brace', 0],
  ['1e999', 'beyond', 0],
  ['sin^-1(x)', 'asin', 4],
])('“%s” is refused, and where it is wrong', (text, message, from) => {
  const fault = orRefusal(() => parseFormula(text));
  expect(fault).toBeInstanceOf(FormulaFault);
  expect((fault as FormulaFault).message).toContain(message);
  expect((fault as FormulaFault).from).toBe(from);
});

test('spellings of one name are one', () => {
  expect(new Set(['theta_0', 'θ0', 'θ₀', 'theta0'].map(sameName)).size).toBe(1);
  expect(new Set(['v_max', 'vmax', 'v'].map(sameName)).size).toBe(3);
  expect(sameName('Ω')).toBe(sameName('Omega'));
});

test('names are changed in the text, and nothing else', () => {
  const called = (name: string) => ({ m: 'mass of the boat', v: 'w', sin: 'never' })[name];
  expect(withNames('1/2 m  v^2 + sin(v)', called)).toBe('1/2 {mass of the boat}  w^2 + sin(w)');
  expect(withNames('1/2 {m}', called)).toBe('1/2 {mass of the boat}');
  expect(withNames('1/2 m $', called)).toBe('1/2 m $');
});

test('a formula is typeset as in a book', () => {
  expect(texFormula(parseFormula('1/2 m v^2'))).toBe('\\frac{1}{2}\\,m\\,{v}^{2}');
  expect(texFormula(parseFormula('2 pi sqrt(l/g)'))).toBe('2\\,\\pi\\,\\sqrt{\\frac{l}{g}}');
  expect(texFormula(parseFormula('A exp(-t/tau) + c0'))).toBe('A\\,\\mathrm{e}^{-\\frac{t}{\\tau}}+c_{0}');
  expect(texFormula(parseFormula('{a \\ $ b}'))).toBe('\\text{a \\textbackslash{} \\$ b}');
});

const place = { from: 0, to: 0 };
const { tree } = fc.letrec<{ tree: Formula; leaf: Formula }>((tie) => ({
  leaf: fc.oneof(
    fc
      .tuple(
        fc.double({ min: 0, max: 1e12, noNaN: true }),
        fc.constantFrom(null, parseUnit('m/s2'), parseUnit('in')),
      )
      .map(([value, unit]) => ({
        kind: 'number' as const,
        value: Object.is(value, -0) ? 0 : value,
        unit,
        ...place,
      })),
    fc
      .constantFrom('x', 'θ', 'v_max', 'x0', 'd', 'sin', 'log', 'period of the swing', 't')
      .map((name) => ({ kind: 'name' as const, name, ...place })),
  ),
  tree: fc.oneof(
    { maxDepth: 5 },
    tie('leaf'),
    tie('tree').map((of) => ({ kind: 'negative' as const, of, ...place })),
    fc
      .tuple(
        fc.constantFrom(
          'sum' as const,
          'difference' as const,
          'product' as const,
          'quotient' as const,
          'power' as const,
        ),
        tie('tree'),
        tie('tree'),
      )
      .map(([kind, left, right]) => ({ kind, left, right, ...place })),
    fc.tuple(fc.constantFrom(...functionNames), tie('tree'), tie('tree')).map(([name, a, b]) => ({
      kind: 'call' as const,
      name,
      of: functions[name].arity === 1 ? [a] : [a, b],
      ...place,
    })),
    fc
      .tuple(tie('tree'), fc.constantFrom('t', 'x', 'a b'), fc.constantFrom(1 as const, 2 as const))
      .map(([of, by, order]) => ({ kind: 'derivative' as const, of, by, order, ...place })),
  ),
}));

test('formulas round-trip through print and parse', () => {
  fc.assert(
    fc.property(tree, (formula) => {
      const text = printFormula(formula);
      fc.pre(text.length <= 500);
      expect(shape(parseFormula(text))).toEqual(shape(formula));
      // What is typeset has as many closing braces as opening ones.
      const tex = texFormula(formula).replace(/\\[{}]/g, '');
      expect(tex.split('{').length).toBe(tex.split('}').length);
    }),
    { numRuns: 2000 },
  );
});

const scraps = [
  'x',
  'theta',
  '2',
  '.5',
  '1e3',
  '+',
  '-',
  '−',
  '*',
  '/',
  '^',
  '²',
  '⁻¹',
  '(',
  ')',
  ',',
  '[m/s]',
  '{a b}',
  'sin',
  'sqrt',
  'max',
  'd(',
  ')/d(t)',
  ' ',
  'constructor',
  '__proto__',
  '"',
  '=',
  '√',
];

test('whatever is typed is read or refused, soon, and nothing else happens', () => {
  let slowest = 0;
  const read = (text: string) => {
    const timed = () => {
      const began = performance.now();
      const found = orRefusal(() => parseFormula(text));
      return { found, took: performance.now() - began };
    };
    const { found, took } = timed();
    // A machine that does something else for a moment is no hang of ours: what is slow is slow again.
    if (took > slowest) slowest = Math.max(slowest, Math.min(took, timed().took, timed().took));
    if (found instanceof Error) {
      expect(found).toBeInstanceOf(FormulaFault);
      const { from, to } = found as FormulaFault;
      expect(from >= 0 && to >= from && to <= Math.max(text.length, 0)).toBe(true);
    } else expect(shape(parseFormula(printFormula(found)))).toEqual(shape(found));
  };
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(...scraps), { maxLength: 40 }).map((all) => all.join('')),
      read,
    ),
    {
      numRuns: repetitions(2000, 60_000),
    },
  );
  fc.assert(fc.property(fc.string({ unit: 'binary', maxLength: 120 }), read), {
    numRuns: repetitions(4000, 40_000),
  });
  expect(slowest).toBeLessThan(50);
});

test('brackets without end, and a text without end, are refused', () => {
  for (const text of [
    '('.repeat(400),
    '-'.repeat(400) + 'x',
    'sin('.repeat(120),
    '2^'.repeat(240) + '2',
    'x'.repeat(501),
  ])
    expect(orRefusal(() => parseFormula(text))).toBeInstanceOf(FormulaFault);
});

test('a comma right between digits is a decimal sign, but between the two arguments of a function', () => {
  same('0,5 m + 1,25', '0.5 m + 1.25');
  same('sqrt(2,25) + 3,2e1', 'sqrt(2.25) + 3.2e1');
  same('max((1,5), 2)', 'max((1.5), 2)');
  same('max(1,5)', 'max(1, 5)');
  same('max(1,5)', 'max( 1 , 5 )');
});
