import { type Entry } from './entries';
import { constantEntry } from '../testing/sheet';
import { channelsFor, transferred } from './transfer';

const x = { key: 'x', quantity: 'position', unit: 'm' };
const F = { key: 'F', quantity: 'force', unit: 'N' };
const region: Entry = {
  kind: 'region',
  id: 'A',
  name: 'running',
  letter: 'A',
  along: 't',
  start: 1,
  end: 2,
  from: { event: 'rises', of: 'channel:x', level: 0.1, count: 1, offset: 0 },
  own: [{ run: 'r1', start: 1.5, end: 2 }],
};
const v: Entry = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
const m = constantEntry('m', 0.5, 0.01, 'kg');
const K: Entry = {
  kind: 'formulaSeries',
  id: 'K',
  name: 'K',
  formula: { text: '1/2 m v^2', names: { v: 'entry:v' } },
  unit: 'J',
  windowPoints: 9,
};
const mean: Entry = { kind: 'statistics', id: 'mean', name: '', of: 'entry:K', region: 'A' };
const loose: Entry = { kind: 'slope', id: 'loose', name: '', of: 'channel:F', against: 't', region: null };
const from = { entries: [region, v, m, K, mean, loose], channels: [x, F] };

let next = 0;
const newId = () => `new${next++}`;
beforeEach(() => {
  next = 0;
});
const byKind = (entries: readonly Entry[], kind: Entry['kind']) => entries.filter((one) => one.kind === kind);

describe('channels are found by what they measure', () => {
  it('by key, then by quantity, then by the kind of unit', () => {
    const there = [
      { key: 'a', quantity: 'distance', unit: 'cm' },
      { key: 'b', quantity: 'force', unit: 'N' },
    ];
    expect([...channelsFor([x, F], there).channels]).toEqual([
      ['F', 'b'],
      ['x', 'a'],
    ]);
    expect(channelsFor([x], [{ ...x, quantity: 'voltage', unit: 'V' }]).lacking).toEqual([x]);
  });

  it('each for one only, where there are several', () => {
    const two = [x, { ...x, key: 'x2' }];
    const { channels } = channelsFor(two, [
      { ...x, key: 'p' },
      { ...x, key: 'q' },
    ]);
    expect([...channels.values()]).toEqual(['p', 'q']);
  });
});

describe('an entry that goes to another sheet', () => {
  it('takes along what it speaks of, and nothing else', () => {
    const { entries } = transferred(from, ['mean'], { entries: [], channels: [x] }, newId);
    expect(entries.map(({ kind }) => kind)).toEqual([
      'region',
      'derivative',
      'constant',
      'formulaSeries',
      'statistics',
    ]);
    const [placed] = byKind(entries, 'region');
    expect(placed).toMatchObject({ own: [], letter: 'A' });
    const [series] = byKind(entries, 'formulaSeries');
    const [derived] = byKind(entries, 'derivative');
    const [mass] = byKind(entries, 'constant');
    // A name that was not bound is, so that nothing of that name there is taken for it.
    expect(series).toMatchObject({
      formula: { names: { v: `entry:${derived.id}`, m: `result:${mass.id}/value` } },
    });
    expect(byKind(entries, 'statistics')[0]).toMatchObject({ of: `entry:${series.id}`, region: placed.id });
  });

  it('uses what stands there in the same words', () => {
    const there = {
      entries: [
        { ...v, id: 'w' },
        { ...m, id: 'n' },
      ],
      channels: [x],
    };
    const { entries } = transferred(from, ['K'], there, newId);
    expect(entries).toHaveLength(3);
    expect(byKind(entries, 'formulaSeries')[0]).toMatchObject({
      formula: { names: { v: 'entry:w', m: 'result:n/value' } },
    });
  });

  it('gets another name and letter where these are taken, and speaks of its own', () => {
    const other = { ...v, id: 'w', windowPoints: 21 };
    const { entries } = transferred(
      from,
      ['mean'],
      {
        entries: [other, { ...region, id: 'B', start: 5, end: 6, from: null, name: '' } as Entry],
        channels: [x],
      },
      newId,
    );
    const added = byKind(entries, 'derivative').find(({ id }) => id !== 'w');
    expect(added?.name).toBe('v2');
    expect(byKind(entries, 'region')[1]).toMatchObject({ letter: 'B' });
    expect(byKind(entries, 'formulaSeries')[0]).toMatchObject({
      formula: { names: { v: `entry:${added?.id}` } },
    });
  });

  it('finds nothing for a motion in a table of numbered readings, though both are lengths', () => {
    const motion = { ...x, timed: true };
    const typed = { key: 'r', quantity: 'r', unit: 'cm', timed: false };
    expect(channelsFor([motion], [typed]).lacking).toEqual([motion]);
    expect(channelsFor([motion], [{ ...typed, timed: true }]).lacking).toEqual([]);
    // A template that was kept before this was known goes by what it measures, as ever.
    expect(channelsFor([x], [typed]).lacking).toEqual([]);
  });

  it('speaks of the channel that measures the same, a level in the unit that it was given in', () => {
    const there = { entries: [], channels: [{ key: 's', quantity: 'position', unit: 'cm' }] };
    const { entries, lacking } = transferred(from, ['v', 'A', 'loose'], there, newId);
    expect(byKind(entries, 'derivative')[0]).toMatchObject({ of: 'channel:s' });
    expect(byKind(entries, 'region')[0]).toMatchObject({
      from: { of: 'channel:s', level: 0.1 },
      toldIn: { 'channel:s': 'm' },
    });
    expect(lacking).toEqual([F]);
    expect(byKind(entries, 'slope')[0]).toMatchObject({ of: 'channel:F' });
  });
});
