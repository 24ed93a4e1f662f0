import fc from 'fast-check';
import { Columns } from './columns';
import { LineCutter, readLine } from './lines';
import { namedPorts } from './ports';

const said = (line: string) => {
  const found = readLine(line);
  return found === null ? null : Object.fromEntries(found);
};

test.each([
  ['12.3,45', { c1: 12.3, c2: 45 }],
  ['12.3; 45\t-7e-3', { c1: 12.3, c2: 45, c3: -0.007 }],
  ['a:12.3 b:45', { a: 12.3, b: 45 }],
  ['temp = 21.5, hum= 40', { temp: 21.5, hum: 40 }],
  ['{"t":21.5,"note":"ok","h":40}', { t: 21.5, h: 40 }],
  ['  +.5 ', { c1: 0.5 }],
])('%j is read', (line, expected) => {
  expect(said(line)).toEqual(expected);
});

test.each([
  '',
  'hello',
  '1,2,',
  'a:1 b',
  'a:1 a:2',
  '1e999',
  '0x10',
  'NaN',
  '{"t":',
  '{"a":"b"}',
  '[1,2]',
  '1,,2',
  '1 2 3 4 5 6 7 8 9',
])('%j is no line of numbers', (line) => {
  expect(readLine(line)).toBeNull();
});

test('lines are put together however they are cut up, and one that never ends fills no memory', () => {
  const cutter = new LineCutter();
  expect(cutter.take('1,2\r\n3,')).toEqual(['1,2']);
  expect(cutter.take('4\n')).toEqual(['3,4']);
  for (let i = 0; i < 1000; i++) expect(cutter.take('x'.repeat(100)).length).toBeLessThan(2);
});

test('the end of a line that was too long is no number; the next line is', () => {
  const cutter = new LineCutter();
  const lines = ['9'.repeat(1500), '9'.repeat(1500), '9'.repeat(1500), '45\n6,7\n8'].flatMap((chunk) =>
    cutter.take(chunk),
  );
  expect(lines.map((line) => said(line))).toEqual([null, { c1: 6, c2: 7 }]);
  expect(cutter.take('9\n')).toEqual(['89']);
});

test('columns are found after a few lines that agree; a torn line is garbage, another sketch is learned', () => {
  const columns = new Columns();
  expect(columns.take('booting ...')).toBeNull();
  expect(['1,2', '3,4', '5,6'].map((line) => columns.take(line))).toEqual([null, null, 'found']);
  expect(columns.take('7,8')).toEqual([7, 8]);
  expect(columns.take('9')).toBeNull();
  expect(columns.take('10,11')).toEqual([10, 11]);
  expect(columns.remark).toBe('2 of 7 lines were not understood; the last one: “9”');
  expect(['a:1', 'a:2', 'a:3'].map((line) => columns.take(line))).toEqual([null, null, 'found']);
  expect(columns.names).toEqual(['a']);
});

test('ten thousand lines of anything: each is read as the numbers that stand in it, or counted as garbage', () => {
  const anything = fc.oneof(
    fc.string({ maxLength: 40 }),
    fc.array(fc.double().map(String), { maxLength: 4 }).map((parts) => parts.join(',')),
    fc.jsonValue().map((value) => JSON.stringify(value)),
    fc.constantFrom('a:1', 'a:1 b:2', 'a:', ':', '=', '1;2', '\u0000', '{}', '{"a":1e400}'),
  );
  fc.assert(
    fc.property(anything, (line) => {
      const found = readLine(line);
      if (found === null) return;
      expect(found.size).toBeLessThanOrEqual(8);
      for (const value of found.values()) expect(Number.isFinite(value)).toBe(true);
      if (line.trim().startsWith('{')) return;
      const texts = line.split(/[,;\s:=]+/).map(Number);
      for (const value of found.values()) expect(texts).toContain(value);
    }),
    { numRuns: 10_000 },
  );
}, 60_000);

test('ports are named with their baud rates', () => {
  expect(namedPorts('/dev/ttyUSB0@9600, /dev/ttyACM1')).toEqual([
    { path: '/dev/ttyUSB0', baudRate: 9600 },
    { path: '/dev/ttyACM1', baudRate: 115_200 },
  ]);
  expect(() => namedPorts('/dev/x@fast')).toThrow('“fast” is no baud rate');
});
