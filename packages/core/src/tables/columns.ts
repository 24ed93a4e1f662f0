import Papa from 'papaparse';
import { type Heading } from './heading';
import { type Numbers } from './numbers';

export interface Column extends Heading {
  values: Numbers;
  /** Of times that stood there as dates or times of day: when they began. */
  clock?: { begins: string | null; since: number | null };
}

/** A text that a spreadsheet would take for a formula is kept from it by a quotation mark; numbers are not touched. */
const notFormula = (text: string) => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** Writes columns as CSV: RFC 4180, every digit that matters, an empty cell for a missing reading. */
export function writeColumns(columns: readonly { heading: string; values: Float64Array }[]): string {
  const longest = columns.reduce((length, { values }) => Math.max(length, values.length), 0);
  const rows: string[][] = [columns.map(({ heading }) => notFormula(heading))];
  for (let i = 0; i < longest; i++)
    rows.push(
      columns.map(({ values }) => (i < values.length && !Number.isNaN(values[i]) ? String(values[i]) : '')),
    );
  return `${Papa.unparse(rows, { newline: '\r\n' })}\r\n`;
}
