import fc from 'fast-check';
import { parseUnit } from '../units/unit';
import { Refusal, orRefusal } from '../refusal';
import { type TableReading, readTable } from './readTable';
import { runsOfLaidOut } from './runsOfTable';
import { arrayOf } from './numbers';

const tableIn = (reading: TableReading) => {
  if (reading.kind !== 'table') throw new Error('a question');
  return reading;
};
const read = (text: string) => tableIn(readTable(text));
const values = (text: string) => read(text).table.columns.map(({ values: own }) => [...arrayOf(own)]);

test('comment lines and a preamble are passed over, and the last line of it is the title', () => {
  const text =
    '# made by a logger\nDevice: K7-D\nSpring 2\n% rate 50 Hz\nt / s,x / m\n0,1.5\n// a remark\n0.02,1.6\n';
  const { table, blocks, skipped } = read(text);
  expect(table.columns.map(({ name }) => name)).toEqual(['t', 'x']);
  expect(values(text)).toEqual([
    [0, 0.02],
    [1.5, 1.6],
  ]);
  expect(blocks[0].title).toBe('Spring 2');
  expect(skipped).toBe(5);
});

test('headings after a blank line begin another table, with a title where one stands over it', () => {
  const text =
    'run one\nt / s;F / N\n0;1\n1;2\n\nrun two\nt / s;F / N\n0;3\n1;4\n2;5\n\n\nt / s;F / N\n0;6\n1;7\n';
  const { blocks } = read(text);
  expect(blocks.map(({ title, table }) => [title, table.rows])).toEqual([
    ['run one', 2],
    ['run two', 3],
    [null, 2],
  ]);
  expect([...arrayOf(blocks[1].table.columns[1].values)]).toEqual([3, 4, 5]);
});

test('a blank row between rows of numbers stays a missing reading', () => {
  expect(values('t,x\n0,1\n\n2,3\n')).toEqual([
    [0, NaN, 2],
    [1, NaN, 3],
  ]);
});

test('a first row of numbers is never a preamble, however few they are', () => {
  expect(values('5,,\n1,2,3\n4,5,6\n')).toEqual([
    [5, 1, 4],
    [NaN, 2, 5],
    [NaN, 3, 6],
  ]);
  expect(() => read('42\n1,2\n3,4\n')).toThrow('Row 2 has 2 cells');
});

test('a wrong cell is named by the row that a spreadsheet shows, comments and blocks counted', () => {
  const text = '# note\nt,x\n0,1\n\nt,x\n0,1\n1,oops\n';
  expect(() => read(text)).toThrow('Row 7, column 2 (x): “oops” is not a number');
});

describe('laid out by hand', () => {
  const { table } = read('n,when,U / V\n1,0,5\n2,0.1,6\n3,0.3,7\n');

  test('another column is the time, in seconds where it has no unit', () => {
    const [{ channels }] = runsOfLaidOut(table, { axis: { kind: 'column', column: 1 }, without: [0] });
    expect(channels).toHaveLength(1);
    expect(channels[0]).toMatchObject({ name: 'U', timeUnit: parseUnit('s') });
    expect(channels[0].sampling).toEqual({ kind: 'timed', times: Float64Array.of(0, 0.1, 0.3) });
  });

  test('so many rows a second', () => {
    const [{ channels }] = runsOfLaidOut(table, { axis: { kind: 'rate', hertz: 50 }, without: [0, 1] });
    expect(channels[0].sampling).toEqual({ kind: 'regular', start: 0, interval: 0.02, count: 3 });
  });

  test('a time that does not ascend, and no column left, are refused', () => {
    expect(() =>
      runsOfLaidOut(read('t,x\n0,1\n2,3\n1,4\n').table, { axis: { kind: 'column', column: 0 }, without: [] }),
    ).toThrow('not after the one before it');
    expect(() => runsOfLaidOut(table, { axis: { kind: 'as-read' }, without: [0, 1, 2] })).toThrow(
      'No column is left',
    );
  });
});

// Numbers are written as programs write them, in every dialect; what is read back has to be the same doubles, or a refusal.
const dialects = fc.record({
  separator: fc.constantFrom('\t', ';', ','),
  isComma: fc.boolean(),
  newline: fc.constantFrom('\n', '\r\n'),
  hasComments: fc.boolean(),
  hasPreamble: fc.boolean(),
  blocks: fc.integer({ min: 1, max: 3 }),
});
const rows = fc.array(
  fc.tuple(
    fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e12, max: 1e12 }),
    fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e-3, max: 1e3 }),
  ),
  { minLength: 2, maxLength: 12 },
);

test('whatever the dialect, the numbers that are read are those that were written', () => {
  fc.assert(
    fc.property(dialects, fc.array(rows, { minLength: 3, maxLength: 3 }), (dialect, all) => {
      const { separator, newline, hasComments, hasPreamble, blocks } = dialect;
      const isComma = dialect.isComma && separator !== ',';
      const cell = (value: number) => {
        // A point or a comma in every number, so that no other sign is thought to be the decimal one.
        const plain = /[.e]/.test(String(value)) ? String(value) : `${value}.0`;
        return isComma ? plain.replace('.', ',') : plain;
      };
      const written = all.slice(0, blocks);
      const text = written
        .map((own, i) =>
          [
            ...(hasPreamble ? [`part ${i + 1}`] : []),
            ['p', 'q'].join(separator),
            ...own.flatMap((row, k) => [
              ...(hasComments && k === 1 ? ['# remark'] : []),
              row.map(cell).join(separator),
            ]),
          ].join(newline),
        )
        .join(newline + newline);
      const found = orRefusal(() => readTable(text, { decimal: isComma ? ',' : '.' }));
      if (found instanceof Refusal) throw found;
      const { blocks: read } = tableIn(found);
      expect(read).toHaveLength(written.length);
      read.forEach(({ table }, i) =>
        table.columns.forEach(({ values: own }, c) =>
          // −0 is written as 0.
          expect([...arrayOf(own)].map((value) => value + 0)).toEqual(written[i].map((row) => row[c] + 0)),
        ),
      );
    }),
    { numRuns: 300 },
  );
});

test('whatever stands in a file, it is read or refused in words; a number is never made up', () => {
  const junk = fc.stringMatching(/^[ -~]{0,12}$/);
  const lines = fc.array(
    fc.array(fc.oneof(junk, fc.double().map(String), fc.constantFrom('', '#', '"', 'NaN', '1,5', '−3')), {
      maxLength: 5,
    }),
    { maxLength: 12 },
  );
  fc.assert(
    fc.property(lines, fc.constantFrom(',', ';', '\t', ' '), (cells, separator) => {
      const text = cells.map((line) => line.join(separator)).join('\n');
      const found = orRefusal(() => readTable(text));
      if (found instanceof Refusal) {
        expect(found.message.length).toBeGreaterThan(10);
        return;
      }
      if (found.kind !== 'table') return;
      // Every number that was read stands somewhere in the text as one.
      const standing = new Set(
        text
          .split(/[\s,;\t"]+|(?<=\d)(?=[a-zA-Zµ])/)
          .concat(text.split(/[;\t\n ]+/))
          .map((part) => Number(part.replace(',', '.').replace('−', '-').trim())),
      );
      for (const { table } of found.blocks)
        for (const { values: own } of table.columns)
          for (const value of arrayOf(own))
            if (Number.isFinite(value) && !standing.has(value) && !standing.has(-value)) {
              // A prefix or a unit may have scaled it, thousands may have been joined; then its digits stand there.
              const digits = Math.abs(value)
                .toExponential()
                .split('e')[0]
                .replace(/[^1-9]/g, '')
                .slice(0, 3);
              expect(text.replace(/[^1-9]/g, '')).toContain(digits);
            }
    }),
    // “1f” is a femto of something.
    { numRuns: 2000, examples: [[[['1f']], ',']] },
  );
});
