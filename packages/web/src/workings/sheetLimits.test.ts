import { type WorkingsDocument, emptyWorkings, mostOnSheet } from '@heuristor/contracts';
import { type Entry } from '@heuristor/core';
import { faultOfSheet } from './sheetLimits';

const words = (id: string, text = ''): Entry => ({ kind: 'words', id, name: '', text, look: 'text' });
const holding = (count: number): WorkingsDocument => ({
  ...emptyWorkings,
  entries: Array.from({ length: count }, (_, i) => words(`e${i}`)),
});

test('what could not be stored is refused before it is made, with what would be right', () => {
  const full = holding(mostOnSheet.entries);
  expect(faultOfSheet(holding(1), full)).toBeNull();
  expect(faultOfSheet(full, holding(mostOnSheet.entries + 1))).toBe(
    'This would make 201 entries; 200 can be kept. Remove some, or begin another investigation. Nothing was changed.',
  );
  // What is too full already, by an older version, can be made smaller.
  expect(faultOfSheet(holding(210), holding(205))).toBeNull();
});

test('so is a sheet that is too long, and one of another shape', () => {
  const ranges = Array.from({ length: mostOnSheet.ranges }, (_, i): [number, number] => [3 * i, 3 * i + 1]);
  const aside = Array.from({ length: 100 }, (_, i) => ({ run: `r${i}`, channel: 'x', ranges }));
  expect(faultOfSheet(emptyWorkings, { ...emptyWorkings, aside: aside.slice(0, 10) })).toBeNull();
  expect(faultOfSheet(emptyWorkings, { ...emptyWorkings, aside })).toMatch(
    /^This would make a sheet of \d+\.\d MB; 3 MB can be kept\./,
  );
  const long = { ...emptyWorkings, entries: [words('e', 'x'.repeat(2001))] };
  expect(faultOfSheet(emptyWorkings, long)).toMatch(
    /^This could not be kept \(entries 0 text: .*\)\. Nothing was changed\.$/,
  );
});
