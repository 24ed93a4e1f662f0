import { parseHeading, writeHeading } from './heading';
import { readColumns, writeColumns } from './columns';
import { parseUnit, ucumCode } from '../units/unit';

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
    expect([...a.values]).toEqual([1, 2, 3]);
    expect([...b.values]).toEqual(expected);
    expect(ucumCode(b.unit)).toBe('N');
  }
});

test('a file without headings still has columns', () => {
  const [first, second] = readColumns('1;2\n3;4');
  expect([first.name, second.name]).toEqual(['column 1', 'column 2']);
  expect([...second.values]).toEqual([2, 4]);
});

test.each([
  ['x,y\n1,2\n3,zwölf\n', 'Row 3, column 2 (y): “zwölf” is not a number'],
  ['x,y\n1,2\n3\n', 'Row 3 has 1 cell, but the first row has 2, separated by commas'],
  ['', 'The file is empty'],
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
  expect([...x.values]).toEqual([...values]);
  expect([...n.values]).toEqual([1, 2, NaN, NaN]);
});
