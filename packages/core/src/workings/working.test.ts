import { Program } from '../formula/program';
import { parseFormula } from '../formula/parse';
import { fitRelation } from '../fitting/fit';
import { type RelationKey, relationKeys, relationOf } from '../fitting/relations';
import { sameName } from '../formula/names';
import { channelOf } from '../testing/sheet';
import { type Entry } from './entries';
import { evaluate } from './evaluate';

const onAll = { region: null, name: '' } as const;

function workingsOf(entries: Entry[], values: readonly number[], id: string) {
  const run = { id: 'r', channels: [channelOf('x', 'm', Float64Array.from(values), 0.5)] };
  const outcome = evaluate({ entries }, run).outcomes.get(id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return Object.fromEntries(outcome.results.map(({ key, working }) => [key, working?.()]));
}

describe('how a number comes about, with the numbers that were put in', () => {
  test('mean, standard deviation and standard error of 2, 4, 4, 4, 5, 5, 7, 9 m', () => {
    // By hand: the sum is 40, the squares about 5 add up to 32.
    const shown = workingsOf(
      [{ ...onAll, kind: 'statistics', id: 's', of: 'channel:x' }],
      [2, 4, 4, 4, 5, 5, 7, 9],
      's',
    );
    expect(shown.mean).toEqual({
      formula: '\\overline{x} = \\frac{1}{n}\\sum_{i=1}^{n} {x}_i',
      putIn: '= \\frac{40\\,\\mathrm{m}}{8}',
    });
    expect(shown.sd?.putIn).toBe('= \\sqrt{\\frac{32\\,\\mathrm{m}^{2}}{8-1}}');
    expect(shown.range?.putIn).toBe('= 9\\,\\mathrm{m}-\\left(2\\,\\mathrm{m}\\right)');
    expect(shown.duration?.putIn).toBe('= 3.5\\,\\mathrm{s}-\\left(0\\,\\mathrm{s}\\right)');
    // These are read off.
    expect(shown.median).toBeUndefined();
    expect(shown.count).toBeUndefined();
  });

  test('slope, area and change of a straight line x = 1 m + 2 m/s · t', () => {
    const values = [1, 2, 3, 4, 5];
    // By hand: Σ(t − t̄)² = 2.5 s², Σ(t − t̄)(x − x̄) = 5 m s; the mean height is 3 m over 2 s.
    const along = { of: 'channel:x', against: 't' } as const;
    expect(workingsOf([{ ...onAll, ...along, kind: 'slope', id: 's' }], values, 's').slope?.putIn).toBe(
      '= \\frac{5\\,\\mathrm{m}\\,\\mathrm{s}}{2.5\\,\\mathrm{s}^{2}}',
    );
    expect(workingsOf([{ ...onAll, ...along, kind: 'area', id: 'a' }], values, 'a').area?.putIn).toBe(
      '= 3\\,\\mathrm{m}\\cdot 2\\,\\mathrm{s}',
    );
    const change = workingsOf([{ ...onAll, kind: 'changeAcross', id: 'c', of: 'channel:x' }], values, 'c');
    expect(change.change?.putIn).toBe('= 5\\,\\mathrm{m}-\\left(1\\,\\mathrm{m}\\right)');
    expect(change.rate?.formula).toBe('\\frac{\\Delta x}{\\Delta t} = \\frac{{x}_{2}-{x}_{1}}{t_{2}-t_{1}}');
  });

  test('a fit shows its relation with what was found, and what that makes the least', () => {
    const [line] = Object.values(
      workingsOf(
        [
          {
            ...onAll,
            kind: 'fit',
            id: 'f',
            relation: 'line',
            of: 'channel:x',
            against: 't',
            showResiduals: false,
            weights: 'equal',
          },
        ],
        [1, 2, 3, 4, 6],
        'f',
      ),
    );
    expect(line?.formula).toBe('x = b\\,t+a');
    // By hand: b = 6 m s / 2.5 s² = 2.4 m/s, a = 0.8 m, what is left over 0.2, 0, −0.2, −0.4, 0.4 m.
    expect(line?.putIn).toMatch(/^x = .*2\.40.*t\+0\.80/);
    expect(line?.least).toContain('= 0.4\\,\\mathrm{m}^{2}');
    expect(line?.says).toContain('b is the slope.');
  });
});

/** What a formula in letters says; x is the abscissa. */
function valueOf(text: string, letters: readonly string[], parameters: readonly number[], x: number): number {
  const program = new Program(parseFormula(text));
  const inputs = program.leaves.map(({ formula }) => {
    const name = formula.kind === 'name' ? formula.name : '';
    const place = letters.findIndex((letter) => sameName(letter) === sameName(name));
    return { values: place < 0 ? x : parameters[place], factor: 1, zero: 0 };
  });
  return program.values(inputs, 0, 1)[0];
}

/** A curve on which each relation can be told. */
const parametersOf: Partial<Record<RelationKey, number[]>> = {
  dampedSine: [0.7, 1.3, 0.21, 0.4, 0.1],
  sineOnLine: [0.7, 1.3, 0.4, 0.1, 0.02],
  sine: [0.7, 1.3, 0.4, 0.1],
  resonance: [4, 1.2, 0.5],
  gaussian: [4, 1.5, 0.6, 0.2],
  decay: [1.5, 2.1, 0.3],
  approach: [1.5, 2.1, 0.3],
};

test.each(relationKeys)('the letters of %s say what it is', (key) => {
  const relation = relationOf(key);
  const { formula, of, further = [] } = relation.letters;
  const parameters = parametersOf[key] ?? [0.7, 1.3, 0.4, 0.9].slice(0, relation.parameterCount);
  expect(of).toHaveLength(relation.parameterCount);
  const x = Float64Array.from({ length: 120 }, (_, i) => 0.5 + i * 0.07);
  for (const place of [x[3], x[40], x[99]])
    expect(valueOf(formula, of, parameters, place)).toBeCloseTo(relation.value(parameters, place), 12);
  const y = x.map((place) => relation.value(parameters, place));
  const found = fitRelation(relation, { x, y }).parameters;
  further.forEach((rule, i) => expect(valueOf(rule, of, found, NaN)).toBeCloseTo(found[of.length + i], 9));
  expect(found).toHaveLength(of.length + further.length);
});
