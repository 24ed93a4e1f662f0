import Papa from 'papaparse';
import { Refusal } from '../refusal';
import { type Heading, parseHeading } from './heading';
import { parseCell } from './number';

export interface Column extends Heading {
  values: Float64Array;
}

const separators = { ',': 'comma', ';': 'semicolon', '\t': 'tab' } as const;

/**
 * Reads columns of numbers from text: comma, semicolon or tab between cells, headings with units in the first row or none,
 * decimal commas where the separator is another.
 * @throws Refusal that names the row (as a spreadsheet counts them) and the column of the first wrong cell
 */
export function readColumns(text: string): Column[] {
  const clean = text.replace(/^\uFEFF/, '');
  if (clean.trim() === '')
    throw new Refusal('The file is empty. It should hold columns of numbers under headings.');
  const firstLine = clean.slice(0, clean.search(/[\r\n]|$/));
  const separator =
    (Object.keys(separators) as (keyof typeof separators)[]).find((candidate) =>
      candidate === ',' ? false : firstLine.includes(candidate),
    ) ?? ',';
  const parsed = Papa.parse<string[]>(clean, { delimiter: separator, skipEmptyLines: false });
  const fault = parsed.errors.find(({ type }) => type === 'Quotes');
  if (fault !== undefined)
    throw new Refusal(
      `Row ${(fault.row ?? 0) + 1}: a quotation mark is not closed. Close it or take it out.`,
    );
  const rows = parsed.data;
  while (rows.length > 0 && rows[rows.length - 1].every((cell) => cell.trim() === '')) rows.pop();

  const decimalComma = separator !== ',';
  const isNumber = (cell: string) => parseCell(cell, decimalComma) !== undefined;
  const hasHeadings = !rows[0].every((cell) => isNumber(cell));
  const width = rows[0].length;
  const headings = hasHeadings
    ? rows[0].map((cell, i) =>
        cell.trim() === '' ? { name: `column ${i + 1}`, unit: [] } : parseHeading(cell),
      )
    : rows[0].map((_, i) => ({ name: `column ${i + 1}`, unit: [] }));
  const first = hasHeadings ? 1 : 0;
  const count = rows.length - first;
  if (count < 1) throw new Refusal('The file has headings but no rows of numbers under them.');

  const columns = headings.map((heading) => ({ ...heading, values: new Float64Array(count) }));
  for (let i = 0; i < count; i++) {
    const row = rows[first + i];
    if (row.length !== width)
      throw new Refusal(
        `Row ${first + i + 1} has ${row.length} ${row.length === 1 ? 'cell' : 'cells'}, but the first row has ${width}, separated by ${separators[separator]}s.`,
      );
    row.forEach((cell, c) => {
      const value = parseCell(cell, decimalComma);
      if (value === undefined)
        throw new Refusal(
          `Row ${first + i + 1}, column ${c + 1} (${headings[c].name}): “${cell.trim().slice(0, 40)}” is not a number. Write it like 0.0125, 1.25E-2 or 12.5m.`,
        );
      columns[c].values[i] = value;
    });
  }
  const seen = new Map<string, number>();
  return columns.map((column) => {
    const times = (seen.get(column.name) ?? 0) + 1;
    seen.set(column.name, times);
    return times === 1 ? column : { ...column, name: `${column.name} (${times})` };
  });
}

/** Writes columns as CSV: RFC 4180, every digit that matters, an empty cell for a missing reading. */
export function writeColumns(columns: readonly { heading: string; values: Float64Array }[]): string {
  const longest = columns.reduce((length, { values }) => Math.max(length, values.length), 0);
  const rows: string[][] = [columns.map(({ heading }) => heading)];
  for (let i = 0; i < longest; i++)
    rows.push(
      columns.map(({ values }) => (i < values.length && !Number.isNaN(values[i]) ? String(values[i]) : '')),
    );
  return `${Papa.unparse(rows, { newline: '\r\n' })}\r\n`;
}
