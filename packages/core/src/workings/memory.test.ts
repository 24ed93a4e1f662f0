import { normalRandom, uniformRandom } from '../random';
import { regular } from '../series/sampling';
import { parseUnit } from '../units/unit';
import { type Entry, type EntryKindKey, entryKindKeys, kindOf } from './entries';
import { Evaluator, evaluate } from './evaluate';
import { eventTitles } from '../calculus/events';
import { type Anchor, type Field } from './fields';
import { type Outcome } from './outcome';
import { type RunData } from './run';

// What an evaluator remembers must never show. Sheets are changed at random, readings come at random, hands move at random;
// each time the evaluator that has lived through it must say what one says that has just been made.

const most = 1200;
const keys = ['x', 'F'] as const;

function readings(seed: number, withGaps: boolean): Record<(typeof keys)[number], Float64Array> {
  const [normal, uniform] = [normalRandom(seed), uniformRandom(seed)];
  const x = Float64Array.from({ length: most }, (_, i) => 0.5 + 0.1 * Math.sin(i * 0.12) + 0.001 * normal());
  const F = Float64Array.from({ length: most }, (_, i) => 2 - i * 0.001 + 0.02 * normal());
  if (withGaps) for (let k = 0; k < 6; k++) x[Math.floor(uniform() * most)] = NaN;
  // Wrong echoes, of which the last readings cannot yet say what they are.
  if (withGaps) for (let k = 0; k < 60; k++) x[Math.floor(uniform() * most)] = 2;
  return { x, F };
}

const runOf = (values: Record<(typeof keys)[number], Float64Array>, count: number): RunData => ({
  id: 'r',
  channels: keys.map((key) => ({
    key,
    symbol: key,
    quantity: key === 'x' ? 'position' : 'force',
    unit: parseUnit(key === 'x' ? 'm' : 'N'),
    timeUnit: parseUnit('s'),
    sampling: regular(0, 0.02, count),
    values: values[key].slice(0, count),
    low: null,
    high: null,
    noise: key === 'x' ? 0.001 : null,
  })),
});

/** A sheet that somebody works on without knowing what they do. */
class Scribbler {
  entries: Entry[] = [
    { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 0.2, end: 1.2 },
    { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 5 },
  ];
  private next = 0;

  constructor(private readonly uniform: () => number) {}

  scribble(): void {
    const dice = this.uniform();
    if (dice < 0.55) this.add(this.pick(entryKindKeys.filter((kind) => kind !== 'region')));
    else if (dice < 0.65) this.remove(this.place());
    else if (dice < 0.85) this.moveRegion();
    else this.changeField();
  }

  private add(kind: EntryKindKey): void {
    const id = `e${this.next++}`;
    const fields = Object.entries(kindOf(kind).fields).map(([name, field]) => [name, this.valueOf(field)]);
    this.entries = [...this.entries, { kind, id, name: id, ...Object.fromEntries(fields) } as Entry];
  }

  private remove(place: number): void {
    this.entries = this.entries.filter((_, i) => i !== place);
  }

  private moveRegion(): void {
    const start = this.uniform() * 3;
    const place =
      this.uniform() < 0.15
        ? { along: 'channel:x', start: 0.45, end: 0.55 }
        : { along: 't', start, end: start + 0.3 + 3 * this.uniform(), ...this.attached() };
    this.entries = this.entries.map((entry) =>
      entry.id === 'A' ? ({ ...entry, ...place } as Entry) : entry,
    );
  }

  /** Ends that hang on what happens in the run. */
  private attached() {
    if (this.uniform() < 0.5) return { from: null, until: null, cyclesOf: 't', own: [] };
    return {
      from: this.anchor(),
      until: this.anchor(),
      cyclesOf: this.pick(['t', 't', ...this.series()]),
      own: this.valueOf({ type: 'ownIntervals', label: '', usual: [], inUnitOf: 'along' }),
    };
  }

  private changeField(): void {
    if (this.entries.length < 2) return;
    const entry = this.entries[this.place()];
    const fields = Object.entries(kindOf(entry.kind).fields);
    if (fields.length === 0 || entry.kind === 'region') return;
    const [name, field] = this.pick(fields);
    const changed = { ...entry, [name]: this.valueOf(field) } as Entry;
    this.entries = this.entries.map((other) => (other === entry ? changed : other));
  }

  private valueOf(field: Field): unknown {
    switch (field.type) {
      case 'series':
        return this.pick([...(field.axis ? ['t', 't', 't'] : []), ...this.series()]);
      case 'region':
        return this.pick([null, 'A', 'A']);
      case 'choice':
        return this.pick(field.options).key;
      case 'integer':
        return 2 * Math.floor(1 + 6 * this.uniform()) + 1;
      case 'number':
        return 3 * this.uniform();
      case 'flag':
        return this.uniform() < 0.5;
      case 'text':
        return this.pick(['m', 'cm', 's', '']);
      case 'result':
        return this.pick([...this.results(), 'result:gone/value']);
      case 'formula':
        return this.formula();
      case 'anchor':
        return this.anchor();
      case 'regions':
        return this.uniform() < 0.7 ? [] : ['A'];
      case 'ownIntervals':
        return this.uniform() < 0.8 ? [] : [{ run: this.pick(['r', 'other']), start: 0.3, end: 0.9 }];
      case 'parameters':
        return { p: { start: this.pick([null, 1]), held: this.uniform() < 0.3, low: null, high: null } };
    }
  }

  private anchor(): Anchor | null {
    if (this.uniform() < 0.4) return null;
    return {
      event: this.pick(Object.keys(eventTitles) as (keyof typeof eventTitles)[]),
      of: this.pick(this.series()) as Anchor['of'],
      level: this.pick([0, 0.5, 2]),
      count: this.pick([1, 2, 5]),
      offset: this.pick([0, 0.2, -0.1]),
    };
  }

  /** Formulas of what stands on the sheet, bound or by name, right or wrong. */
  private formula(): unknown {
    const names = ['x', 'F', 't', 'v', ...this.entries.map(({ name }) => name).filter((name) => name !== '')];
    const [a, b] = [this.pick(names), this.pick(names)];
    const text = this.pick([
      '',
      a,
      `2 ${a}`,
      `${a} ${b}`,
      `${a} / ${b}`,
      `sin(${a} / ${a}) ${b}`,
      `d(${a})/d(t)`,
      `${a} + ${b}`,
      `p ${a}`,
      `p + ${a} +`,
      'p + q t',
    ]);
    const bound = this.pick([...this.series(), ...this.results(), 'result:gone/value']);
    return { text, names: this.uniform() < 0.2 ? { [a]: bound } : {} };
  }

  private series(): string[] {
    const derived = this.entries.filter(({ kind }) => kindOf(kind).yields === 'series');
    return ['channel:x', 'channel:F', ...derived.map(({ id }) => `entry:${id}`)];
  }

  private results(): string[] {
    const known: Partial<Record<EntryKindKey, string>> = {
      statistics: 'mean',
      slope: 'slope',
      constant: 'value',
      combination: 'value',
    };
    return this.entries.flatMap(({ kind, id }) =>
      known[kind] === undefined ? [] : [`result:${id}/${known[kind]}`],
    );
  }

  private place = () => 1 + Math.floor(this.uniform() * (this.entries.length - 1));
  private pick = <T>(from: readonly T[]): T => from[Math.floor(this.uniform() * from.length)];
}

const sumOf = (values: Float64Array) =>
  values.reduce((sum, value) => sum + (Number.isNaN(value) ? 0 : value), 0);

/** Where two outcomes do not mean the same; sums that were begun elsewhere may round otherwise. */
function difference(a: Outcome | undefined, b: Outcome | undefined): string | null {
  const isNear = (x: number, y: number, reach: number) => x === y || Math.abs(x - y) <= reach;
  if (a?.kind === 'series' && b?.kind === 'series') {
    const [left, right] = [a.series.values, b.series.values];
    if (left.length !== right.length) return 'length';
    if (left.some((value, i) => Number.isNaN(value) !== Number.isNaN(right[i]))) return 'missing readings';
    return isNear(sumOf(left), sumOf(right), 1e-6 * left.length) ? null : 'values';
  }
  if (a?.kind === 'results' && b?.kind === 'results') {
    if (a.notes.join() !== b.notes.join()) return `notes: ${a.notes.join()} / ${b.notes.join()}`;
    if (a.results.length !== b.results.length) return 'number of results';
    for (const [i, { key, quantity }] of a.results.entries()) {
      const other = b.results[i].quantity;
      const u = quantity.standardUncertainty ?? 0;
      if (!isNear(u, other.standardUncertainty ?? 0, 0.01 * u + 1e-15)) return `uncertainty of ${key}`;
      if (!isNear(quantity.value, other.value, 1e-3 * u + 1e-6 * Math.abs(other.value) + 1e-12))
        return `${key}: ${quantity.value} / ${other.value}`;
    }
    return null;
  }
  if (a?.kind === 'region' && b?.kind === 'region')
    return isNear(a.start, b.start, 1e-9) && isNear(a.end, b.end, 1e-9) ? null : 'ends';
  return JSON.stringify(a) === JSON.stringify(b) ? null : `${JSON.stringify(a)} / ${JSON.stringify(b)}`;
}

test.each([1, 2, 3, 4, 5, 6])('what is remembered never shows (sheets of seed %i)', (seed) => {
  const uniform = uniformRandom(seed);
  for (let round = 0; round < 5; round++) {
    const values = readings(100 * seed + round, uniform() < 0.4);
    let count = 40 + Math.floor(400 * uniform());
    const evaluator = new Evaluator(runOf(values, count));
    const scribbler = new Scribbler(uniform);
    for (let step = 0; step < 20; step++) {
      if (uniform() < 0.8) scribbler.scribble();
      else {
        count = Math.min(count + Math.floor(60 * uniform()), most);
        for (const key of keys) evaluator.grow(key, regular(0, 0.02, count), values[key].slice(0, count));
      }
      const { entries } = scribbler;
      if (uniform() < 0.5) evaluator.evaluate({ entries }, { moving: true });
      const remembered = evaluator.evaluate({ entries }).outcomes;
      const anew = evaluate({ entries }, runOf(values, count)).outcomes;
      for (const entry of entries)
        expect({ entry, difference: difference(remembered.get(entry.id), anew.get(entry.id)) }).toEqual({
          entry,
          difference: null,
        });
    }
  }
});

test.each(['slope', 'fit'] as const)('a %s of a quantity against itself is refused in words', (kind) => {
  const entries = [
    {
      kind,
      id: 'f',
      name: '',
      of: 'channel:x',
      against: 'channel:x',
      region: null,
      relation: 'line',
      showResiduals: false,
      weights: 'equal',
    },
  ] as Entry[];
  expect(evaluate({ entries }, runOf(readings(1, false), 100)).outcomes.get('f')).toEqual({
    kind: 'refused',
    sentence: 'x against itself is a straight line whatever it does. Choose another quantity for the axis.',
  });
});
