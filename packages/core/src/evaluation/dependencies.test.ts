import { repetitions } from '../testing/effort';
import { uniformRandom } from '../random';
import { randomRun, randomSheet } from '../testing/randomSheets';
import { constantEntry } from '../testing/sheet';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { dependenciesOf } from './dependencies';
import { storedEvaluation } from './stored';

const formulaOf = (id: string, text: string): Entry => ({
  kind: 'calculation',
  id,
  name: id,
  formula: { text, names: {} },
  unit: '',
});

describe('what an entry depends on', () => {
  const entries: Entry[] = [
    constantEntry('m', 2, 0.1, 'kg'),
    constantEntry('g', 9.81, 0.01, 'm.s-2'),
    formulaOf('W', 'm g'),
    formulaOf('half', 'W/2'),
    formulaOf('alone', 'm^2'),
  ];
  const changed = (next: Entry[]) => {
    const [before, after] = [dependenciesOf({ entries }, 'r'), dependenciesOf({ entries: next }, 'r')];
    return [...after].filter(([id, text]) => before.get(id) !== text).map(([id]) => id);
  };

  test('is what it speaks of, also by a name in a formula, and through others', () => {
    const next = entries.map((entry) => (entry.id === 'g' ? constantEntry('g', 9.8, 0.01, 'm.s-2') : entry));
    expect(changed(next)).toEqual(['g', 'W', 'half']);
  });

  test('is a name that means nothing yet, where something is called so now', () => {
    const open = [...entries, formulaOf('open', 'm q')];
    const before = dependenciesOf({ entries: open }, 'r');
    const after = dependenciesOf({ entries: [...open, constantEntry('q', 1, 0, 'm')] }, 'r');
    expect(after.get('open')).not.toBe(before.get('open'));
    expect(after.get('half')).toBe(before.get('half'));
  });

  test('is what was set aside and moved in this run, and not in another', () => {
    const aside = (run: string) => [{ run, channel: 'x', ranges: [[1, 2]] as const }];
    const plain = dependenciesOf({ entries }, 'r').get('half');
    expect(dependenciesOf({ entries, aside: aside('r') }, 'r').get('half')).not.toBe(plain);
    expect(dependenciesOf({ entries, aside: aside('other') }, 'r').get('half')).toBe(plain);
    expect(dependenciesOf({ entries, shifts: [{ run: 'r', by: 0.5 }] }, 'r').get('half')).not.toBe(plain);
    expect(dependenciesOf({ entries, shifts: [{ run: 'other', by: 0.5 }] }, 'r').get('half')).toBe(plain);
  });

  test('that it is worked out from itself ends', () => {
    const circle = [formulaOf('a', 'b + 1'), formulaOf('b', 'a + 1')];
    expect([...dependenciesOf({ entries: circle }, 'r').keys()]).toEqual(['a', 'b']);
  });

  test('of random sheets: as long as it stands, an entry says the same, whatever else is changed', () => {
    const sheets = repetitions(80, 200);
    let kept = 0;
    let other = 0;
    for (let seed = 0; seed < sheets; seed++) {
      const uniform = uniformRandom(seed + 77);
      const before = randomSheet(seed);
      const run = randomRun(seed);
      const removed = Math.floor(uniform() * before.length);
      // One is left out, and one is called otherwise.
      const renamed = Math.floor(uniform() * before.length);
      const after = before
        .map((entry, i) => (i === renamed ? { ...entry, name: 'renamed' } : entry))
        .filter((_, i) => i !== removed);
      const said = (own: Entry[]) => {
        const workings = { entries: own };
        const { outcomes } = evaluate(workings, run);
        return (id: string) =>
          JSON.stringify(
            storedEvaluation('r', [
              {
                workings: { entries: own.filter((entry) => entry.id === id) },
                outcomes: new Map([...outcomes].filter(([one]) => one === id)),
              },
            ]),
          );
      };
      const [first, second] = [said(before), said(after)];
      const [one, two] = [before, after].map((own) => dependenciesOf({ entries: own }, 'r'));
      for (const { id } of after) {
        if (one.get(id) !== two.get(id)) {
          other++;
          continue;
        }
        kept++;
        expect(second(id)).toBe(first(id));
      }
    }
    expect(kept).toBeGreaterThan(2.5 * sheets);
    expect(other).toBeGreaterThan(0.5 * sheets);
  });
});
