import { repetitions } from '../testing/effort';
import * as fc from 'fast-check';
import { uniformRandom } from '../random';
import { Refusal } from '../refusal';
import { Growing } from '../series/growing';
import { parseCell } from './number';
import { takePlainRows } from './plainRows';
import { readTable } from './readTable';
import { arrayOf } from './numbers';

const read = (text: string, columns: number, separator = ',', decimal: '.' | ',' = '.') => {
  const into = Array.from({ length: columns }, () => new Growing(0));
  const plain = takePlainRows(text, 0, separator, decimal, into, text.length);
  return { ...plain, values: into.map((column) => [...column.view()]) };
};

/** Decimal texts as people and machines write them; the truth is what the language itself makes of each. */
const decimals = fc.oneof(
  fc.double({ noNaN: true, noDefaultInfinity: true }).map(String),
  fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e9, max: 1e9 }).map((value) => value.toFixed(6)),
  fc.double({ noNaN: true, noDefaultInfinity: true }).map((value) => value.toExponential(20)),
  fc.integer().map(String),
  fc.constantFrom(
    '.5',
    '5.',
    '-.25',
    '+3',
    '1E5',
    '1e-3',
    '000012.50',
    '-0',
    '9007199254740993',
    '1e22',
    '1e23',
  ),
  fc.constantFrom('5e-324', '2.2250738585072011e-308', '1.7976931348623157e308', '0.1e-400', '123456789e-30'),
);

test('every decimal text becomes the very double that the language reads', () =>
  fc.assert(
    fc.property(fc.array(decimals, { minLength: 1, maxLength: 20 }), (cells) => {
      const { rows, values } = read(cells.join('\n'), 1);
      expect(rows).toBe(cells.length);
      values[0].forEach((value, i) => expect(Object.is(value, Number(cells[i]))).toBe(true));
    }),
    { numRuns: repetitions(1000, 3000) },
  ));

test('and so with a decimal comma', () =>
  fc.assert(
    fc.property(fc.array(decimals, { minLength: 1, maxLength: 20 }), (cells) => {
      const { values } = read(cells.map((cell) => cell.replace('.', ',')).join('\n'), 1, ';', ',');
      expect(values[0].map(String)).toEqual(cells.map((cell) => String(Number(cell))));
    }),
    { numRuns: 1000 },
  ));

test.each([
  '1e',
  '1.2.3',
  '12.5 m',
  '0x10',
  '--1',
  '1 2',
  '−1',
  '1,234',
  '∞',
  '1e400',
  '.',
  '+',
  'NaN',
  '"1"',
  '4.7k',
])('a row with “%s” is left to the full reading, and nothing of it is taken', (odd) => {
  const { rows, at, values } = read(`1;2\n3;4\n5;${odd}\n7;8\n`, 2, ';');
  expect({ rows, at }).toEqual({ rows: 2, at: 8 });
  expect(values).toEqual([
    [1, 3],
    [2, 4],
  ]);
});

test.each([
  ['a cell too few', '1,2\n3\n', 4],
  ['a cell too many', '1,2\n3,4,5\n', 4],
  ['an empty row', '1,2\n\n3,4\n', 4],
  ['a row of nothing but separators', '1,2\n,\n3,4\n', 4],
])('it stops before %s', (_what, text, at) => expect(read(text, 2)).toMatchObject({ rows: 1, at }));

test('empty cells are missing readings; spaces and every kind of line end are passed over', () => {
  const { rows, values } = read(' 1 , 2\r\n3,\r ,4 \n5,6', 2);
  expect(rows).toBe(4);
  expect(values).toEqual([
    [1, 3, NaN, 5],
    [2, NaN, 4, 6],
  ]);
});

test('tables of many rows come through whole, odd rows among them, and a wrong cell is named by its row', () => {
  const uniform = uniformRandom(11);
  const truth = Array.from({ length: 30_000 }, (_, i) => [i / 100, uniform() * 10 ** (6 * uniform() - 3)]);
  const written = truth.map(([t, x], i) =>
    i % 977 === 0 ? `${t},${x} m` : i % 1009 === 0 ? `${t},` : `${t},${x}`,
  );
  const reading = readTable(`t / s,x / m\n${written.join('\n')}\n`);
  if (reading.kind !== 'table') throw new Error('asked for the decimal sign');
  const [t, x] = reading.table.columns;
  expect(reading.table.rows).toBe(truth.length);
  expect([...arrayOf(t.values)]).toEqual(truth.map(([time]) => time));
  expect([...arrayOf(x.values)]).toEqual(
    truth.map(([, value], i) => (i % 977 !== 0 && i % 1009 === 0 ? NaN : value)),
  );
  written[20_123] = '201.23,word';
  expect(() => readTable(`t / s,x / m\n${written.join('\n')}\n`)).toThrow(
    new Refusal(
      'Row 20125, column 2 (x): “word” is not a number. Write it like 0.0125, 1.25E-2 or 12.5m, a time like 10:15:30 or 2026-11-29 10:15:30; NA means that there is none.',
    ),
  );
});

test('the short way and the full reading agree on every cell they both take', () =>
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom(...'0123456789.,eE+- kmN'), minLength: 1, maxLength: 8 }),
      (cell) => {
        const { rows, values } = read(`${cell}\n`, 1, ';');
        if (rows === 1) expect(values[0][0]).toBe(parseCell(cell, '.', []));
      },
    ),
    { numRuns: repetitions(1500, 5000) },
  ));
