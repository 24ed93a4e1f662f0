import { parseHeading, writeHeading } from './heading';
import { type Column, writeColumns } from './columns';
import { decodeText } from '../testing/decodedText';
import { readTable } from './readTable';
import { runsOfTable } from './runsOfTable';
import { parseUnit, ucumCode } from '../units/unit';
import { arrayOf } from './numbers';

function readColumns(text: string): Column[] {
  const reading = readTable(text);
  if (reading.kind !== 'table') throw new Error(`a question about ${reading.example}`);
  return reading.table.columns;
}
const valuesOf = (text: string) => readColumns(text).map(({ values }) => [...arrayOf(values)]);

test.each([
  ['t / s', 't', 's'],
  ['v / (m s⁻¹)', 'v', 'm.s-1'],
  ['Force (N)', 'Force', 'N'],
  ['U [mV]', 'U', 'mV'],
  ['height in cm', 'height', 'cm'],
  ['count', 'count', '1'],
  ['v (m/s)', 'v', 'm.s-1'],
])('the heading %s is read as %s in %s', (text, name, unit) => {
  const heading = parseHeading(text);
  expect([heading.name, ucumCode(heading.unit)]).toEqual([name, unit]);
});

test('comma, semicolon and tab, decimal comma, exponents, prefixes and empty cells are read', () => {
  const expected = [0.001, -2500, NaN];
  for (const text of [
    'a / m,b / N\n1,1.0E-3\n2,-2.5k\n3,\n',
    'a / m;b / N\r\n1;1,0e-3\r\n2;−2500\r\n3;NaN\r\n',
    'a / m\tb / N\n1\t1m\n2\t-2,5e3\n3\t\n\n',
  ]) {
    const [a, b] = readColumns(text);
    expect([...arrayOf(a.values)]).toEqual([1, 2, 3]);
    expect([...arrayOf(b.values)]).toEqual(expected);
    expect(ucumCode(b.unit)).toBe('N');
  }
});

test('a file without headings still has columns', () => {
  const [first, second] = readColumns('1;2\n3;4');
  expect([first.name, second.name]).toEqual(['column 1', 'column 2']);
  expect([...arrayOf(second.values)]).toEqual([2, 4]);
});

test.each([
  ['x,y\n1,2\n3,zwölf\n', 'Row 3, column 2 (y): “zwölf” is not a number'],
  ['x,y\n1,2\n3\n', 'Row 3 has 1 cell, but the first row has 2, separated by commas'],
  ['', 'The file holds no numbers'],
  [',,,\n,,\n', 'The file holds no numbers'],
  ['x,y\n1,1e400\n', '“1e400” is beyond the largest number'],
  ['1,2\nfoo,4\n', 'Row 2, column 1 (column 1): “foo” is not a number'],
  ['1,foo\n3,4\n', 'Row 1 mixes numbers and words: column 2 is “foo”'],
  [
    'x;y\n0,5;1\n0.5;2\n',
    'Row 2 has the number “0,5” with a decimal comma, row 3 “0.5” with a decimal point',
  ],
  ['x,y\n', 'no rows of numbers'],
  ['x,y\n1,"2\n', 'quotation mark'],
  ['x,y\n1,1.2.3\n', '“1.2.3” is not a number'],
])('a wrong file is refused with the place and what would be right: %j', (text, sentence) =>
  expect(() => readColumns(text)).toThrow(sentence),
);

test('what is written is read back to the last bit, in CRLF lines and with quoted commas (RFC 4180)', () => {
  const values = Float64Array.of(0.1 + 0.2, -1e-300, NaN, 12345.678901234567);
  const text = writeColumns([
    { heading: writeHeading('run 1, x', parseUnit('m/s2')), values },
    { heading: 'n', values: Float64Array.of(1, 2) },
  ]);
  expect(text.startsWith('"run 1, x / (m.s-2)",n\r\n')).toBe(true);
  const [x, n] = readColumns(text);
  expect([...arrayOf(x.values)]).toEqual([...values]);
  expect([...arrayOf(n.values)]).toEqual([1, 2, NaN, NaN]);
});

describe('units in cells', () => {
  test.each([
    ['12.5 m', 12.5],
    ['12.5m', 12.5],
    ['12.5 mm', 0.0125],
    ['1.25E1', 12.5],
    ['12.5k', 12_500],
  ])('%s under x / m is %p metres', (cell, metres) =>
    expect(valuesOf(`t / s,x / m\n0,1\n1,${cell}\n`)[1][1]).toBeCloseTo(metres, 12),
  );
  test('a suffix that is neither a prefix nor a unit of the column is no number', () =>
    expect(() => readColumns('t / s,x / m\n0,1\n1,12.5 s\n')).toThrow('“12.5 s” is not a number'));
});

describe('the decimal sign is decided over the whole file', () => {
  test('1,234 beside 0.5 in a tab file is a thousand and more', () =>
    expect(valuesOf('a\tb\n1,234\t2\n0.5\t3\n')[0]).toEqual([1234, 0.5]));
  test('1,234 beside 0,5 is a little more than one', () =>
    expect(valuesOf('a;b\n1,234;2\n0,5;3\n')[0]).toEqual([1.234, 0.5]));
  test('1.234,5 and 1,234.5 each tell their own sign', () => {
    expect(valuesOf('a;b\n1.234,5;2\n')[0]).toEqual([1234.5]);
    expect(valuesOf('a;b\n1,234.5;2\n')[0]).toEqual([1234.5]);
  });
  test('where nothing decides, it is asked, and the answer is taken', () => {
    const text = 'a;b\n1,234;2\n5,678;3\n';
    expect(readTable(text)).toMatchObject({ kind: 'question', about: 'decimal', example: '1,234' });
    for (const [decimal, value] of [
      ['.', 1234],
      [',', 1.234],
    ] as const) {
      const reading = readTable(text, { decimal });
      expect(reading.kind === 'table' && arrayOf(reading.table.columns[0].values)[0]).toBe(value);
    }
  });
});

test.each([
  ['a|b\n1|2\n', [[1], [2]]],
  [
    '1 2 3\n4 5 6\n',
    [
      [1, 4],
      [2, 5],
      [3, 6],
    ],
  ],
  ['a\tb c\n1\t2\n', [[1], [2]]],
  [
    '1;2\r3;4\r',
    [
      [1, 3],
      [2, 4],
    ],
  ],
])('the separator is found: %j', (text, values) => expect(valuesOf(text)).toEqual(values));

test('names are made different from each other, whatever they are', () =>
  expect(readColumns('a,a,a (2) [m]\n1,2,3\n').map(({ name }) => name)).toEqual(['a', 'a (2)', 'a (2) (2)']));

test('a heading of 112 letters is cut to a name that can be worked with', () =>
  expect(readColumns(`${'x'.repeat(112)},y\n1,2\n`)[0].name).toHaveLength(60));

describe('encodings', () => {
  const latin1 = Uint8Array.from([...'x / µm;y\n1;2\n'].map((letter) => letter.charCodeAt(0)));
  test('Latin-1 is recognised, and its µ read', () => {
    const { text, encoding } = decodeText(latin1);
    expect(encoding).toMatch('Latin-1');
    expect(ucumCode(readColumns(text)[0].unit)).toBe('um');
  });
  test('UTF-16 with its mark and UTF-8 are recognised', () => {
    const utf16 = Uint8Array.from([
      0xff,
      0xfe,
      ...[...'a,b\n1,2\n'].flatMap((letter) => [letter.charCodeAt(0), 0]),
    ]);
    expect(decodeText(utf16)).toEqual({ text: 'a,b\n1,2\n', encoding: 'UTF-16' });
    expect(decodeText(new TextEncoder().encode('x / µm')).encoding).toBe('UTF-8');
  });
  test('what holds NUL is no text', () =>
    expect(() => decodeText(Uint8Array.of(49, 44, 0, 50))).toThrow('character 3 is a control character'));
});

describe('runs in a table', () => {
  const runsOf = (text: string) => {
    const reading = readTable(text);
    if (reading.kind !== 'table') throw new Error('a question');
    return runsOfTable(reading.table);
  };
  test('runs of different lengths side by side come back as those runs, their padding left out', () => {
    const text = 'soft: t / s,soft: x / m,stiff: t / s,stiff: x / m\n0,1,0,5\n0.1,2,0.2,6\n0.2,3,,\n';
    const [soft, stiff] = runsOf(text);
    expect([soft.name, stiff.name]).toEqual(['soft', 'stiff']);
    expect(soft.channels[0].sampling).toEqual({ kind: 'regular', start: 0, interval: 0.1, count: 3 });
    expect([...arrayOf(stiff.channels[0].values)]).toEqual([5, 6]);
  });
  test('a time that is missing between others, or beside a value, is refused', () => {
    expect(() => runsOf('t / s,x / m\n0,1\n,2\n0.2,3\n')).toThrow('The time in reading 2 is missing');
    expect(() => runsOf('t / s,x / m\n0,1\n0.1,2\n,3\n')).toThrow('The time in reading 3 is missing');
  });
  test('channels sampled apart keep their own times', () => {
    const [{ channels }] = runsOf('t / ms,x / m,t / ms,F / N\n0,1,5,2\n20,2,35,3\n');
    expect(channels.map(({ sampling }) => sampling)).toMatchObject([
      { kind: 'regular', start: 0, interval: 0.02, count: 2 },
      { kind: 'regular', start: 0.005, interval: expect.closeTo(0.03, 12), count: 2 },
    ]);
  });
});

test('text like a formula leaves with a mark before it, and comes back without; numbers are not touched', () => {
  const text = writeColumns([
    { heading: '=HYPERLINK("x")', values: Float64Array.of(-1.5) },
    { heading: 'y', values: Float64Array.of(2) },
  ]);
  expect(text).toBe('"\'=HYPERLINK(""x"")",y\r\n-1.5,2\r\n');
  expect(readColumns(text)[0].name).toMatch(/^=HYPERLINK/);
});
