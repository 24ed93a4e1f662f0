import { uniformRandom } from '../random';
import { decodedPieces, encodingOf } from './encoding';
import { type NumberStore, arrayOf } from './numbers';
import { readTable } from './readTable';
import { type TextSource } from './textSource';

/** A text in pieces that are cut anywhere, also in the middle of a line's end, a number or a quotation. */
function cut(text: string, uniform: () => number): TextSource & { texts: string[] } {
  const texts: string[] = [];
  for (let at = 0; at < text.length;) {
    const length = 1 + Math.floor(uniform() * 40);
    texts.push(text.slice(at, at + length));
    at += length;
  }
  return {
    texts,
    *pieces() {
      for (const [i, one] of texts.entries()) yield { text: one, share: i / texts.length };
    },
  };
}

/** Numbers that are kept in many small parts, as a file holds them. */
const inStretches: NumberStore = () => {
  const all: number[] = [];
  return {
    append: (values) => all.push(...values),
    numbers: () => ({ length: all.length, subarray: (from, to) => Float64Array.from(all.slice(from, to)) }),
  };
};

const tables = {
  plain: 't / s,x / m\n0,1.25\n0.1,1.5\n0.2,\n0.3,-2e-3\n',
  'ends of two signs': '\uFEFFt (s);U (V)\r\n0;1,5\r\n0,1;2,5\r\n\r\n0,3;3,5\r\n',
  'ends of old': 't/s\tx/m\r0\t1\r1\t2\r2\t3\r',
  quotations: '"t, time / s","he said ""x"" / m"\n"0","1"\n1,"2"\n"2\n",3\n',
  'no end of the last line': '# made by hand\nn,F / N\n1,2\n2,3',
  'dates and times':
    'date,time,T (°C)\n2026-11-29,10:15:30,20.5\n2026-11-29,10:15:31,20.6\n,,\n2026-11-29,10:15:33,20.8\n',
  'two tables': 'first\nt,x\n0,1\n1,2\n\nsecond\nt,y\n0,5\n1,6\n',
  'days that only their order gives': 'day,h\n01/02/2026,5\n02/02/2026,6\n05/02/2026,7\n',
};

describe('a text that is read in pieces', () => {
  const uniform = uniformRandom(7);
  test.each(Object.entries(tables))('says what the whole text says: %s', (_, text) => {
    const whole = readTable(text);
    for (let i = 0; i < 20; i++) {
      const read = readTable(cut(text, uniform), {}, {}, inStretches);
      if (whole.kind !== 'table' || read.kind !== 'table') throw new Error('a question');
      expect(read.skipped).toBe(whole.skipped);
      expect(read.blocks.map(({ title }) => title)).toEqual(whole.blocks.map(({ title }) => title));
      read.blocks.forEach(({ table }, b) => {
        const truth = whole.blocks[b].table;
        expect(table.columns.map(({ name, unit, clock }) => ({ name, unit, clock }))).toEqual(
          truth.columns.map(({ name, unit, clock }) => ({ name, unit, clock })),
        );
        table.columns.forEach(({ values }, c) =>
          expect([...arrayOf(values)]).toEqual([...arrayOf(truth.columns[c].values)]),
        );
      });
    }
  });

  test('bytes are cut within a letter, and are the same letters', () => {
    const text = 'Größe / µm,°C\n1,2\n';
    const bytes = new TextEncoder().encode(text);
    for (let size = 1; size < 8; size++) {
      const pieces = () =>
        Array.from({ length: Math.ceil(bytes.length / size) }, (_, i) =>
          bytes.slice(i * size, (i + 1) * size),
        );
      expect(encodingOf(pieces).name).toBe('UTF-8');
      expect([...decodedPieces(pieces(), 'utf-8')].join('')).toBe(text);
    }
    // A letter that is broken off at the very end is none in UTF-8.
    const broken = () => [bytes.slice(0, 4), Uint8Array.of(0xc3)];
    expect(encodingOf(broken).name).toBe('Windows-1252 (Latin-1)');
  });

  test('a line that never ends, and a quotation that is never closed, are refused before they fill the memory', () => {
    let asked = 0;
    const endless = (text: string): TextSource => ({
      *pieces() {
        for (;;) {
          if (++asked > 100) throw new Error('it was read on and on');
          yield { text, share: 0 };
        }
      },
    });
    expect(() => readTable(endless('1'.repeat(1 << 20)))).toThrow(
      'has more than 4 million characters: this is no table of numbers',
    );
    const open = `t,x\n0,1\n"${'1,2\n'.repeat(2 << 20)}`;
    expect(() => readTable(open)).toThrow('A quotation mark is not closed');
  });
});
