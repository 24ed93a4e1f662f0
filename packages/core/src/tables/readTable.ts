import Papa from 'papaparse';
import { Refusal } from '../refusal';
import { clockIn, isClock } from './clock';
import { type ClockColumns, withClocks } from './clockColumns';
import { ClockLog } from './clockLog';
import { ColumnWriter } from './columnWriter';
import { type Column } from './columns';
import { type Heading, parseHeading, shortName } from './heading';
import { type DecimalSign, decimalEvidence, parseCell } from './number';
import { type NumberStore, inMemory } from './numbers';
import { takePlainRows } from './plainRows';
import { type TextSource, headOfText, holds, holdsSomething, textSource, wholeLines } from './textSource';
import { unitsUnder, withUnitsOfCells } from './unitsOfCells';

/** Names of the signs that may stand between cells, the likeliest first. */
export const separators = { '\t': 'tab', ';': 'semicolon', '|': 'bar', ',': 'comma', ' ': 'space' } as const;
export type Separator = keyof typeof separators;

/** What somebody has decided about a file. */
export interface TableChoices {
  decimal?: DecimalSign;
  separator?: Separator;
  /** Where the clock hung that times without a zone were read off, as IANA names it; universal time where nothing is said. */
  zone?: string;
}

/** How far a long reading is, and whether it is still wanted. */
export interface ReadingWatch {
  progress?(share: number): void;
  isCancelled?(): boolean;
}

export interface Table {
  separator: Separator;
  decimal: DecimalSign;
  columns: Column[];
  rows: number;
}

/** One of the tables of a file, and the line that stands over it, where one does. */
export interface Block {
  title: string | null;
  table: Table;
}

/** A table, or the question that has to be answered before it can be read. */
export type TableReading =
  | {
      kind: 'table';
      table: Table;
      /** All tables of the file, the first one among them. */
      blocks: Block[];
      /** Lines that were passed over: comments, and what stands over the headings. */
      skipped: number;
    }
  | { kind: 'question'; about: 'decimal'; separator: Separator; example: string };

/** What is cut into cells at once is little, so that its many small texts are soon forgotten. */
const parsedLength = 1 << 15;
const mostColumns = 64;
const linesLookedAt = 50;
/** Separators are found from so many characters. */
const headLength = 20_000;

export class Cancelled extends Error {
  override readonly name = 'Cancelled';
}

/**
 * Reads columns of numbers from text: any usual separator, headings with units in the first row or none, the decimal sign
 * decided over the whole file and asked for where both readings are possible. Lines that begin with #, % or // are comments;
 * lines before the headings that have fewer cells are a preamble, the last of which is the title. Headings after a blank line
 * begin another table.
 * @param whole the text, or where it can be read part by part
 * @param store where the numbers of the columns are written to
 * @throws Refusal that names the row (as a spreadsheet counts them) and the column of the first wrong cell
 * @throws Cancelled where the watch says so
 */
export function readTable(
  whole: string | TextSource,
  choices: TableChoices = {},
  watch: ReadingWatch = {},
  store: NumberStore = inMemory,
): TableReading {
  const source = typeof whole === 'string' ? textSource(whole) : whole;
  if (!holdsSomething(source))
    throw new Refusal('The file holds no numbers. It should hold columns of numbers under headings.');
  const { separator, usual } = separatorOf(headOfText(source, headLength), choices.separator);
  const found = choices.decimal ?? decimalOf(source, separator);
  if (typeof found !== 'string')
    return { kind: 'question', about: 'decimal', separator, example: found.example };
  const decimal = found;

  let headings: Heading[] | null = null;
  let columns: ColumnWriter[] = [];
  let row = 0;
  let blank = 0;
  let count = 0;
  let title: string | null = null;
  let skipped = 0;
  const blocks: Block[] = [];
  let clocks: ClockColumns = new Map();
  const end = () => {
    if (headings === null || count === 0) return;
    const names = distinctNames(headings.map(({ name }) => name));
    const plain = headings.map(({ unit }, c): Column => ({
      name: names[c],
      unit,
      values: columns[c].numbers(),
    }));
    blocks.push({
      title,
      table: {
        separator,
        decimal,
        rows: count,
        columns: withClocks(plain, clocks, choices.zone ?? 'UTC', store),
      },
    });
    [headings, columns, count, title, clocks] = [null, [], 0, null, new Map()];
  };
  const plainRows = (text: string, from: number): number => {
    // Missing rows before these are only known to be readings once one follows.
    if (headings === null || blank > 0 || separator === ' ') return from;
    const tails = columns.map(({ tail }) => tail);
    const plain = takePlainRows(text, from, separator, decimal, tails, text.length);
    row += plain.rows;
    count += plain.rows;
    return plain.at;
  };
  const takeRows = (rows: string[][]) => {
    for (const cells of rows) {
      row++;
      if (cells.every((cell) => cell.trim() === '')) {
        blank++;
        continue;
      }
      if (isComment(cells[0])) {
        skipped++;
        continue;
      }
      // Asked only where a heading may stand: to tell a date from a word takes as long as to read it.
      const mayBeHeading = headings === null || blank > 0 || count === 0;
      const isWords = mayBeHeading && cells.every((cell) => cell.trim() === '' || !isDatum(cell, decimal));
      if (headings !== null && blank > 0 && isWords) end();
      if (headings === null && isWords && isPreamble(cells, usual)) {
        title = cells.join(' ').trim() || title;
        skipped++;
        continue;
      }
      if (headings === null) {
        const first = headingsOf(cells, decimal);
        headings = first.headings;
        columns = headings.map(() => new ColumnWriter(store));
        blank = 0;
        if (first.isHeading) continue;
      }
      if (count === 0 && isWords && blank === 0) {
        const units = unitsUnder(headings, cells);
        if (units !== null) {
          headings = units;
          skipped++;
          continue;
        }
      }
      if (count === 0) headings = withUnitsOfCells(headings, cells);
      if (cells.length !== headings.length)
        throw new Refusal(
          `Row ${row} has ${cells.length} ${cells.length === 1 ? 'cell' : 'cells'}, but the first row has ${headings.length}, separated by ${separators[separator]}s.`,
        );
      // Blank rows between others are readings that are missing; at the end they are nothing.
      for (; blank > 0; blank--) {
        for (const column of columns) column.put(NaN);
        count++;
      }
      for (let c = 0; c < cells.length; c++) {
        const own = clocks.get(c);
        if (own !== undefined || parseCell(cells[c], decimal, headings[c].unit) === undefined) {
          const clock = clockIn(cells[c]);
          // A column is of clock times from its first filled cell on, or not at all.
          if (clock !== undefined && (own !== undefined || columns[c].isEmpty)) {
            const log = own ?? new ClockLog(store, count);
            log.padTo(count);
            log.add(clock);
            clocks.set(c, log);
            columns[c].put(0);
            continue;
          }
        }
        const value =
          own === undefined || cells[c].trim() === ''
            ? parseCell(cells[c], decimal, headings[c].unit)
            : undefined;
        if (value === undefined) throw wrongCell(row, c, headings[c].name, cells[c]);
        columns[c].put(value);
      }
      count++;
    }
  };
  eachPiece(
    source,
    separator,
    watch,
    { skip: plainRows, take: takeRows, rowBefore: () => row },
    // What has been read of a piece does not stay in memory.
    () => {
      for (const column of columns) column.flush();
      for (const log of clocks.values()) log.flush();
    },
  );
  end();
  if (blocks.length === 0) throw new Refusal('The file has headings but no rows of numbers under them.');
  const [{ table }] = blocks;
  return { kind: 'table', table, blocks, skipped };
}

/** Whether a cell is a number, or a time. */
const isDatum = (cell: string, decimal: DecimalSign) =>
  parseCell(cell, decimal, []) !== undefined || clockIn(cell) !== undefined;

const isComment = (cell: string) => /^\s*(#|%|\/\/)/.test(cell);

/** A line before the headings that has fewer cells than the table: what the file says about itself. */
const isPreamble = (cells: readonly string[], usual: number) =>
  usual > 1 && cells.filter((cell) => cell.trim() !== '').length < Math.min(usual, 2);

function wrongCell(row: number, column: number, name: string, cell: string): Refusal {
  const shown = cell.trim().slice(0, 40);
  const isTooLarge = /^[+-]?[\d.,]+e\d+$/i.test(shown);
  return new Refusal(
    isTooLarge
      ? `Row ${row}, column ${column + 1} (${name}): “${shown}” is beyond the largest number, about 1.8E308.`
      : `Row ${row}, column ${column + 1} (${name}): “${shown}” is not a number. Write it like 0.0125, 1.25E-2 or 12.5m, a time like 10:15:30 or 2026-11-29 10:15:30; NA means that there is none.`,
  );
}

/** The sign that cuts most of the first lines into the same number of cells, more than one, and how many these are. */
function separatorOf(text: string, chosen?: Separator): { separator: Separator; usual: number } {
  const lines = text
    .split(/\r\n|\n|\r/)
    .filter((line) => line.trim() !== '' && !isComment(line))
    .slice(0, linesLookedAt);
  let best: { separator: Separator; agreeing: number; usual: number } | null = null;
  for (const separator of chosen === undefined ? (Object.keys(separators) as Separator[]) : [chosen]) {
    const counts = lines.map((line) => cellsOf(line, separator));
    const usual = commonest(counts);
    if (usual < 2) continue;
    const agreeing = counts.filter((count) => count === usual).length;
    if (best === null || agreeing > best.agreeing) best = { separator, agreeing, usual };
  }
  return best ?? { separator: chosen ?? ',', usual: 1 };
}

function commonest(counts: readonly number[]): number {
  let best = 1;
  let most = 0;
  for (const count of new Set(counts)) {
    const times = counts.filter((other) => other === count).length;
    if (times > most || (times === most && count > best)) [best, most] = [count, times];
  }
  return best;
}

function cellsOf(line: string, separator: Separator): number {
  const plain = line.replace(/"[^"]*"/g, '');
  // Headings may hold spaces; a space separates only where every line is numbers.
  if (separator === ' ') return /[a-zA-Z]{2}/.test(plain) ? 1 : plain.trim().split(/ +/).length;
  return plain.split(separator).length;
}

/** What is done with the rows of a text. */
interface RowTaker {
  /** May take whole rows from a place on by itself, and says how far it came. */
  skip(text: string, from: number): number;
  take(rows: string[][]): void;
  /** How many rows were taken so far. */
  rowBefore(): number;
}

/**
 * Runs through the rows of a text, piece by piece, so that memory stays small and a long reading can be watched.
 * @param done called after each piece
 */
function eachPiece(
  source: TextSource,
  separator: Separator,
  { progress, isCancelled }: ReadingWatch,
  { skip, take, rowBefore }: RowTaker,
  done: () => void = () => undefined,
): void {
  for (const { text, share } of wholeLines(source)) {
    if (isCancelled?.() === true) throw new Cancelled('the reading was cancelled');
    progress?.(share);
    const hasQuotes = text.includes('"');
    for (let from = 0; from < text.length;) {
      const skipped = hasQuotes ? from : skip(text, from);
      if (skipped > from) {
        from = skipped;
        continue;
      }
      const to = hasQuotes ? text.length : endOfPiece(text, from + parsedLength);
      const piece = text.slice(from, to);
      const parsed = Papa.parse<string[]>(
        separator === ' ' ? piece.replace(/^ +| +$|(?<= ) +/gm, '') : piece,
        { delimiter: separator, skipEmptyLines: false, fastMode: !hasQuotes },
      );
      const fault = parsed.errors.find(({ type }) => type === 'Quotes');
      if (fault !== undefined)
        throw new Refusal(
          `Row ${rowBefore() + (fault.row ?? 0) + 1}: a quotation mark is not closed. Close it or take it out.`,
        );
      // A piece ends with a line's end, after which Papa sees one more, empty row.
      if (/[\r\n]$/.test(piece)) parsed.data.pop();
      take(parsed.data);
      from = to;
    }
    done();
  }
}

function endOfPiece(text: string, wanted: number): number {
  if (wanted >= text.length) return text.length;
  const end = text.indexOf('\n', wanted);
  if (end >= 0) return end + 1;
  const old = text.indexOf('\r', wanted);
  return old < 0 ? text.length : old + 1;
}

/**
 * The decimal sign that the cells agree on, or a cell that may be read either way, where none of them decides.
 * @throws Refusal where they contradict
 */
function decimalOf(source: TextSource, separator: Separator): DecimalSign | { example: string } {
  if (separator === ',' || !holds(source, ',')) return '.';
  const cells: Partial<Record<DecimalSign | 'either', { cell: string; row: number }>> = {};
  let row = 0;
  const noPoint = !holds(source, '.');
  const take = (rows: string[][]) => {
    for (const line of rows) {
      row++;
      if (isComment(line[0])) continue;
      for (const cell of line) {
        if (isClock(cell)) continue;
        if (!cell.includes(',') && (noPoint || !cell.includes('.'))) continue;
        const evidence = decimalEvidence(cell);
        if (evidence === null || cells[evidence] !== undefined) continue;
        cells[evidence] = { cell: cell.trim(), row };
        if (noPoint && evidence === ',') throw new Cancelled('decided');
      }
    }
  };
  try {
    eachPiece(source, separator, {}, { skip: (_, from) => from, take, rowBefore: () => row });
  } catch (error) {
    if (!(error instanceof Cancelled)) throw error;
  }
  const [comma, point] = [cells[','], cells['.']];
  if (comma !== undefined && point !== undefined)
    throw new Refusal(
      `Row ${comma.row} has the number “${comma.cell}” with a decimal comma, row ${point.row} “${point.cell}” with a decimal point. Use one of them in the whole file.`,
    );
  if (comma !== undefined) return ',';
  if (point !== undefined || cells.either === undefined) return '.';
  return { example: cells.either.cell };
}

/** The headings in a first row, or made-up ones where it holds numbers already. */
function headingsOf(cells: string[], decimal: DecimalSign): { headings: Heading[]; isHeading: boolean } {
  if (cells.length > mostColumns)
    throw new Refusal(`The first row has ${cells.length} cells; at most ${mostColumns} columns can be read.`);
  const filled = cells.filter((cell) => cell.trim() !== '');
  const numbers = filled.filter((cell) => isDatum(cell, decimal));
  const made = (i: number): Heading => ({ name: `column ${i + 1}`, unit: [] });
  if (numbers.length === filled.length) return { headings: cells.map((_, i) => made(i)), isHeading: false };
  if (numbers.length > 0) {
    const wrong = cells.findIndex((cell) => cell.trim() !== '' && !isDatum(cell, decimal));
    throw new Refusal(
      `Row 1 mixes numbers and words: column ${wrong + 1} is “${cells[wrong].trim().slice(0, 40)}”. Give every column a heading like F / N, or correct that cell.`,
    );
  }
  return {
    headings: cells.map((cell, i) => (cell.trim() === '' ? made(i) : parseHeading(cell))),
    isHeading: true,
  };
}

/** Names that are all different: a second "a" becomes "a (2)", or the next number that is free. */
function distinctNames(names: readonly string[]): string[] {
  const used = new Set<string>();
  return names.map((wish) => {
    let name = shortName(wish);
    for (let n = 2; used.has(name); n++) name = `${wish} (${n})`;
    used.add(name);
    return name;
  });
}
