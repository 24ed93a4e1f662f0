import { comparisonOf, entryOf, chance } from '../testing/truth/sheets';
import { constantEntry } from '../testing/sheet';
import { type Entry } from './entries';
import { evaluate } from './evaluate';

const said = (entries: Entry[]): string => {
  const outcome = evaluate({ entries }, { id: 'r', channels: [] }).outcomes.get('q');
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome.notes[0];
};

const repeats = (id: string, values: readonly number[]): Entry =>
  entryOf('constant', id, {
    value: 0,
    uncertainty: 0,
    unit: 's',
    source: '',
    ends: '',
    shift: 0,
    repeats: values.join(' '),
  });

// By construction both means have the same truth: chance alone tells them apart.
test.each([2, 3, 5, 10])(
  'of true values, each from %i repeats, no more are said to differ or hardly to agree than the sentences allow',
  (count) => {
    const words: Record<string, number> = {};
    const trials = 4000;
    for (let i = 0; i < trials; i++) {
      const { normal } = chance(i, count);
      const some = () => Array.from({ length: count }, () => 1.2 + 0.03 * normal());
      const sentence = said([repeats('a', some()), repeats('b', some()), comparisonOf('a/value', 'b/value')]);
      const [verdict] = sentence.split(/:| within/);
      words[verdict] = (words[verdict] ?? 0) + 1;
    }
    const share = (verdict: string) => (words[verdict] ?? 0) / trials;
    expect(share('They agree')).toBeGreaterThan(0.65);
    // The formula of Welch and Satterthwaite is on the safe side for two values each.
    expect(share('They agree')).toBeLessThan(count === 2 ? 0.77 : 0.74);
    // 4.55 % and 0.27 %, and three standard deviations of 4000 trials.
    expect(share('They hardly agree') + share('They differ')).toBeLessThan(0.0455 + 0.01);
    expect(share('They differ')).toBeLessThan(0.0027 + 0.0025);
  },
);

// Normal distribution, from tables: 1.96 σ are passed by 5.0 of 100, 3 σ by one of 370, 5 σ by one of 1.7 million.
test.each([
  [0.5, 'They agree within their uncertainties', '62 of 100 cases'],
  [1.96, 'They are compatible', 'one case of 20'],
  [2.5758, 'They hardly agree', 'one case of 100'],
  [3.5, 'They differ', 'one case of 2\u202f100'],
  [6, 'They differ', 'less than one case of a million'],
])('%f standard uncertainties are written as people write numbers', (times, verdict, cases) => {
  const sentence = said([
    constantEntry('a', 10 + 0.5 * times, 0.3, 'm'),
    constantEntry('b', 10, 0.4, 'm'),
    comparisonOf('a/value', 'b/value'),
  ]);
  expect(sentence).toContain(verdict);
  expect(sentence).toContain(cases);
  expect(sentence).toContain('standard uncertainty of that is 0.50 m');
  expect(sentence).not.toMatch(/e[+-]/);
});

test('an amount of hundreds is written out', () => {
  expect(
    said([
      constantEntry('a', 1000, 150, 'm'),
      constantEntry('b', 790, 150, 'm'),
      comparisonOf('a/value', 'b/value'),
    ]),
  ).toContain('they are 210 m apart');
});
