import { type GivenColumn } from '@heuristor/contracts';
import { pastedRows } from './pastedRows';

const typed = (key: string, unit: string): GivenColumn => ({
  kind: 'typed',
  key,
  name: key,
  unit,
  offset: 0,
  output: null,
});
const columns: GivenColumn[] = [
  typed('m', 'g'),
  typed('l', 'cm'),
  { kind: 'word', key: 'w', name: 'spring' },
];

test('rows cut out of a spreadsheet, with a heading, decimal commas, and units of their own', () => {
  expect(pastedRows('mass\tlength\tspring\n100\t12,5\tred\n0.2 kg\t151 mm\tthe blue one\n', columns)).toEqual(
    {
      rows: [
        { m: { typed: 100 }, l: { typed: 12.5 }, w: { word: 'red' } },
        { m: { typed: 200 }, l: { typed: 15.1 }, w: { word: 'the blue one' } },
      ],
    },
  );
});

test('an empty cell is nothing, and rows may be short', () => {
  expect(pastedRows('1\t\tred\n2\t3', columns)).toEqual({
    rows: [
      { m: { typed: 1 }, w: { word: 'red' } },
      { m: { typed: 2 }, l: { typed: 3 } },
    ],
  });
});

test('an empty first cell keeps the others in their columns; what a spreadsheet adds at the end is nothing', () => {
  expect(pastedRows('\t3\tred\t\n2\t\t\t\t\n', columns)).toEqual({
    rows: [{ l: { typed: 3 }, w: { word: 'red' } }, { m: { typed: 2 } }],
  });
  expect(pastedRows('  5   6 \n', columns)).toEqual({ rows: [{ m: { typed: 5 }, l: { typed: 6 } }] });
});

test.each([
  ['1\tfar', 'Row 1, column l'],
  ['1\t2\tred\t4', 'has 4 cells, and there are 3 columns'],
  ['\n \n', 'holds no rows'],
])('%j is refused with the place', (text, words) => {
  const found = pastedRows(text, columns);
  expect('sentence' in found ? found.sentence : '').toContain(words);
});
