import { uniformRandom } from '../random';
import { regular, timed, timesOf } from '../series/sampling';
import { parseUnit } from '../units/unit';
import { writeColumns } from './columns';
import { decodeText } from '../testing/decodedText';
import { writeHeading } from './heading';
import { Cancelled, readTable } from './readTable';
import { runsOfTable } from './runsOfTable';
import { arrayOf } from './numbers';

// Random tables with known numbers, written in every way that a spreadsheet or a logger writes them.

const separators = ['\t', ';', '|', ','] as const;
const encodings: [name: string, encode: (text: string) => Uint8Array][] = [
  ['UTF-8', (text) => new TextEncoder().encode(text)],
  ['UTF-8 with its mark', (text) => new TextEncoder().encode(`\uFEFF${text}`)],
  [
    'UTF-16',
    (text) => new Uint8Array(Uint16Array.from(`\uFEFF${text}`, (letter) => letter.charCodeAt(0)).buffer),
  ],
  ['Latin-1', (text) => Uint8Array.from(text, (letter) => letter.charCodeAt(0))],
];

/** Numbers of every size, some missing, some whole. */
function columnOf(uniform: () => number, rows: number): Float64Array {
  return Float64Array.from({ length: rows }, () => {
    const kind = uniform();
    if (kind < 0.1) return NaN;
    if (kind < 0.2) return Math.floor(2000 * uniform()) - 1000;
    return (uniform() - 0.5) * 10 ** Math.floor(30 * uniform() - 15);
  });
}

const ways = separators.flatMap((separator) =>
  (['.', ','] as const)
    .filter((decimal) => decimal !== separator)
    .flatMap((decimal) => encodings.map(([name, encode]) => ({ separator, decimal, name, encode }))),
);

test.each(ways)('separator $separator, decimal sign $decimal, $name', ({ separator, decimal, encode }) => {
  for (let seed = 1; seed <= 8; seed++) {
    const uniform = uniformRandom(seed);
    const rows = 2 + Math.floor(60 * uniform());
    // One number that only one decimal sign can mean, as a real table has.
    const first = columnOf(uniform, rows).with(0, 0.123456);
    const columns = [first, columnOf(uniform, rows), columnOf(uniform, rows).with(rows - 1, 7)];
    const end = seed % 2 === 0 ? '\r\n' : '\n';
    const cell = (value: number) => (Number.isNaN(value) ? '' : String(value).replace('.', decimal));
    const lines = Array.from({ length: rows }, (_, i) => columns.map((own) => cell(own[i])).join(separator));
    const text = ['x / µm', 'y', 'z (N)'].join(separator) + end + lines.join(end) + end;
    const reading = readTable(decodeText(encode(text)).text);
    if (reading.kind !== 'table') throw new Error(`a question about ${reading.example}`);
    expect([reading.table.separator, reading.table.decimal]).toEqual([separator, decimal]);
    expect(reading.table.columns.map(({ name }) => name)).toEqual(['x', 'y', 'z']);
    reading.table.columns.forEach(({ values }, i) => expect([...arrayOf(values)]).toEqual([...columns[i]]));
  }
});

test('runs of different lengths and samplings leave side by side and come back as they were, to the last bit', () => {
  const s = parseUnit('s');
  for (let seed = 1; seed <= 12; seed++) {
    const uniform = uniformRandom(seed);
    const runs = Array.from({ length: 1 + Math.floor(4 * uniform()) }, (_, number) => {
      const count = 3 + Math.floor(50 * uniform());
      let t = 0;
      const sampling =
        uniform() < 0.5
          ? regular(0, 0.02, count)
          : timed(Float64Array.from({ length: count }, () => (t += 0.01 + uniform())));
      const values = columnOf(uniform, count).with(0, 1);
      return { name: `trial ${number + 1}`, sampling, values };
    });
    const text = writeColumns(
      runs.flatMap(({ name, sampling, values }) => [
        { heading: `${name}: ${writeHeading('t', s)}`, values: timesOf(sampling) },
        { heading: `${name}: ${writeHeading('F', parseUnit('N'))}`, values },
      ]),
    );
    const reading = readTable(text);
    if (reading.kind !== 'table') throw new Error('a question');
    const back = runsOfTable(reading.table);
    expect(back.map(({ name }) => name)).toEqual(runs.map(({ name }) => name));
    back.forEach(({ channels: [channel] }, i) => {
      expect([...arrayOf(channel.values)]).toEqual([...arrayOf(runs[i].values)]);
      const { sampling } = channel;
      const times = timesOf(sampling.kind === 'timed' ? timed(arrayOf(sampling.times)) : sampling);
      timesOf(runs[i].sampling).forEach((time, k) => expect(times[k]).toBeCloseTo(time, 12));
    });
  }
});

test('a table that is damaged at any one place is read or refused with a sentence, and never breaks', () => {
  const whole = 't / s,x / m\n0,1.5\n0.02,"1.6"\n0.04,1.7\n';
  const damages = ['', '"', ',', '\n', '\r', 'x', '-', '.', 'e', '\u00e9', '1e999', ';'];
  for (let at = 0; at <= whole.length; at++)
    for (const damage of damages) {
      const text = whole.slice(0, at) + damage + whole.slice(at + 1);
      try {
        const reading = readTable(text);
        if (reading.kind === 'table')
          for (const { values } of reading.table.columns)
            for (const value of arrayOf(values)) expect(Math.abs(value)).not.toBe(Infinity);
      } catch (error) {
        expect(error).toMatchObject({ name: 'Refusal', message: expect.stringMatching(/[a-z].*[.?“”]/) });
      }
    }
});

test('a long reading tells how far it is, and ends when nobody wants it any more', () => {
  const text = `x,y\n${'1.5,2.5\n'.repeat(600_000)}`;
  const shares: number[] = [];
  const reading = readTable(text, {}, { progress: (share) => shares.push(share) });
  expect(reading.kind).toBe('table');
  expect(shares.length).toBeGreaterThan(2);
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares.every((share) => share >= 0 && share <= 1)).toBe(true);
  let asked = 0;
  expect(() => readTable(text, {}, { isCancelled: () => ++asked > 1 })).toThrow(Cancelled);
});
