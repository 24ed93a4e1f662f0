import { type GivenCells, type GivenColumn, mostSpotRows } from '@heuristor/contracts';
import { cellOf } from './spotActions';

/** The cells of a line; empty ones beyond the last column are none. */
function cellsOf(line: string, separator: string | RegExp, most: number): string[] {
  const cells = (typeof separator === 'string' ? line : line.trim()).split(separator);
  while (cells.length > most && cells[cells.length - 1].trim() === '') cells.pop();
  return cells;
}

/** What was cut out of a spreadsheet as rows for the columns in their order, or what is wrong with it. */
export function pastedRows(
  text: string,
  columns: readonly GivenColumn[],
): { rows: GivenCells[] } | { sentence: string } {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const separator = text.includes('\t') ? '\t' : text.includes(';') ? ';' : /\s+/;
  // Between tabs an empty cell is one; spaces about what stands between spaces are none.
  const cells = lines.map((line) => cellsOf(line, separator, columns.length));
  const numbers = columns.flatMap(({ kind }, i) => (kind === 'typed' ? [i] : []));
  // A first row without any number where numbers belong is a heading.
  const isHeading = numbers.length > 0 && numbers.every((i) => !/\d/.test(cells[0]?.[i] ?? ''));
  const rows: GivenCells[] = [];
  for (const [place, row] of cells.entries()) {
    if (place === 0 && isHeading) continue;
    if (row.length > columns.length)
      return {
        sentence: `Row ${place + 1} of what was pasted has ${row.length} cells, and there are ${columns.length} columns to be typed. Add a column for each first.`,
      };
    const given: GivenCells = {};
    for (const [i, column] of columns.entries()) {
      try {
        const cell = cellOf(column, row[i] ?? '');
        if (cell !== undefined) given[column.key] = cell;
      } catch (error) {
        return {
          sentence: `Row ${place + 1}, column ${column.name} of what was pasted: ${error instanceof Error ? error.message : String(error)}`,
        };
      }
    }
    rows.push(given);
  }
  if (rows.length === 0) return { sentence: 'What was pasted holds no rows.' };
  if (rows.length > mostSpotRows)
    return { sentence: `What was pasted has ${rows.length} rows; a series holds ${mostSpotRows}.` };
  return { rows };
}
