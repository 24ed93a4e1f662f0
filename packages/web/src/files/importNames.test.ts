import { type Import } from '@heuristor/contracts';
import {
  faultOfColumn,
  faultOfRun,
  isFaultless,
  namesAsRead,
  remarkOnUnit,
  withColumn,
  withRunNamed,
} from './importNames';

const channel = (name: string, unit: string) => ({ name, unit, count: 2, against: 'time', first: [1, 2] });
const ready: Extract<Import['state'], { kind: 'ready' }> = {
  kind: 'ready',
  encoding: 'UTF-8',
  separator: 'comma',
  decimal: '.',
  skipped: 0,
  layout: { axis: { kind: 'as-read' }, without: [] },
  columns: [],
  rows: 2,
  runs: [
    { name: 'soft', begins: null, since: null, channels: [channel('x', 'm'), channel('a', 'm.s-2')] },
    { name: 'stiff', begins: null, since: null, channels: [channel('x', '1')] },
  ],
};
const read = namesAsRead(ready);

test('names and units stand as they were read, units as people write them', () =>
  expect(read).toEqual([
    {
      name: 'soft',
      channels: [
        { name: 'x', unit: 'm' },
        { name: 'a', unit: 'm s⁻²' },
      ],
    },
    { name: 'stiff', channels: [{ name: 'x', unit: '' }] },
  ]));

test('one thing is mended at a time, and nothing else changes', () => {
  const mended = withColumn(withRunNamed(read, 1, 'hard'), 0, 1, { unit: 'N/kg' });
  expect(mended[1].name).toBe('hard');
  expect(mended[0].channels).toEqual([
    { name: 'x', unit: 'm' },
    { name: 'a', unit: 'N/kg' },
  ]);
  expect(mended[0].channels[0]).toBe(read[0].channels[0]);
  expect(read[1].name).toBe('stiff');
});

test('no name, and one name twice in a run, are faults; the same name in two runs is none', () => {
  expect(isFaultless(read)).toBe(true);
  const twice = withColumn(read, 0, 1, { name: ' x ' });
  expect(faultOfColumn(twice[0], 1)).toBe('Another column is called x too.');
  expect(faultOfColumn(twice[0], 0)).toBe('Another column is called x too.');
  expect(isFaultless(twice)).toBe(false);
  expect(faultOfColumn(withColumn(read, 0, 0, { name: '' })[0], 0)).toBe('A column needs a name.');
  expect(faultOfRun(withRunNamed(read, 0, '  ')[0])).toBe('A run needs a name.');
  expect(isFaultless(withRunNamed(read, 0, '  '))).toBe(false);
});

test.each(['m', '', 'm/s²', '°C', 'kΩ', '%'])('%p can be worked with', (unit) =>
  expect(remarkOnUnit(unit)).toBeNull(),
);
test.each(['Newton', 'fathoms'])('%p is no unit, and that is said', (unit) =>
  expect(remarkOnUnit(unit)).toContain(`${unit} is no unit known here`),
);
