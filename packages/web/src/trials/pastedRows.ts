import { type TypedCell, type TypedRow } from '@heuristor/contracts';
import { parseHeading, sameName, ucumCode } from '@heuristor/core';
import Papa from 'papaparse';
import { type TableInputs, type TableView, type ViewColumn } from './tableView';
import { typedCell, unitTypedIn } from './typedCells';

/** Rows that were copied elsewhere, as a table takes them, and what of them was left. */
export interface Pasted {
  rows: Omit<TypedRow, 'id'>[];
  /** Headings that are no column of the table. */
  unknown: string[];
  /** Cells that could not be read, each with where it stands and why; the first few. */
  faults: string[];
}

const mostFaults = 3;

/** What a column of the pasted text is: of a column of the table its numbers or their uncertainties, or the names of rows. */
type Meaning = { column: ViewColumn; isUncertainty: boolean; unit: string } | 'name' | null;

/** "u(v) / m", "± v", "Δv": the uncertainty of v. */
const ofUncertainty = /^(?:u\s*\(([^()]+)\)|[±Δ]\s*([^/([]+?))(\s*[/([].*)?$/u;

/**
 * Rows from a spreadsheet: headings are columns by their names, "u(v)" or "± v" the uncertainties of v, a unit behind a name that of
 * its cells; without headings the cells are the columns in their order. A cell can be "1.2 ± 0.1".
 */
export function pastedRows(text: string, view: TableView, inputs: TableInputs): Pasted {
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' });
  const typed = view.columns.filter(({ column }) => column.kind !== 'formula' && column.kind !== 'run');
  const [first = [], ...others] = data;
  const hasHeadings = !first.some((cell) => /^[\s\d.,eE+−-]*\d/.test(cell));
  const meanings = hasHeadings
    ? first.map((heading, i) => meaningOf(heading, typed, i))
    : first.map((_, i): Meaning =>
        typed[i] === undefined ? null : { column: typed[i], isUncertainty: false, unit: '' },
      );
  const faults: string[] = [];
  const rows = (hasHeadings ? others : data).map((cells, line) =>
    rowOf(cells, line + 1, meanings, inputs, faults),
  );
  return {
    rows: rows.filter(({ name, cells }) => name !== '' || Object.keys(cells).length > 0),
    unknown: hasHeadings ? first.filter((heading, i) => meanings[i] === null && heading.trim() !== '') : [],
    faults: faults.slice(0, mostFaults),
  };
}

function meaningOf(heading: string, columns: readonly ViewColumn[], place: number): Meaning {
  const found = ofUncertainty.exec(heading.trim());
  const isUncertainty = found !== null;
  const { name, unit } = headingOf(isUncertainty ? `${found[1] ?? found[2]}${found[3] ?? ''}` : heading);
  const column = columns.find(({ title }) => sameName(title) === sameName(name));
  if (column !== undefined) return { column, isUncertainty, unit };
  return place === 0 && !isUncertainty ? 'name' : null;
}

/** The name and the unit in a heading; all of it is the name where its unit is none. */
function headingOf(text: string): { name: string; unit: string } {
  try {
    const { name, unit } = parseHeading(text);
    return { name, unit: unit.length === 0 ? '' : ucumCode(unit) };
  } catch {
    return { name: text.trim(), unit: '' };
  }
}

function rowOf(
  cells: readonly string[],
  line: number,
  meanings: readonly Meaning[],
  inputs: TableInputs,
  faults: string[],
): Omit<TypedRow, 'id'> {
  const row: Omit<TypedRow, 'id'> = { name: '', cells: {} };
  const uncertainties: { key: string; value: number }[] = [];
  cells.forEach((cell, i) => {
    const meaning = meanings[i] ?? null;
    const text = cell.trim();
    if (meaning === null || text === '') return;
    if (meaning === 'name') {
      row.name = text.slice(0, 60);
      return;
    }
    const { column, isUncertainty, unit } = meaning;
    try {
      const value = valueOf(text, column, unit, inputs);
      if (!isUncertainty) row.cells[column.key] = value;
      else if ('value' in value) uncertainties.push({ key: column.key, value: Math.abs(value.value) });
    } catch (error) {
      faults.push(`Row ${line}, ${column.title}: ${error instanceof Error ? error.message : String(error)}`);
    }
  });
  for (const { key, value } of uncertainties) {
    const known = row.cells[key];
    if (known !== undefined && 'value' in known) row.cells[key] = { ...known, u: value };
  }
  return row;
}

/** @throws Error that says what would be right */
function valueOf(text: string, viewed: ViewColumn, unit: string, inputs: TableInputs): TypedCell {
  const { column } = viewed;
  const condition =
    column.kind === 'condition' ? inputs.conditions.find(({ key }) => key === column.condition) : undefined;
  const kind = condition?.kind ?? 'number';
  const inUnit = kind === 'number' && unit !== '' && !/[\p{L}°%]\s*$/u.test(text) ? `${text} ${unit}` : text;
  const value = typedCell(inUnit, unitTypedIn(viewed, inputs), kind);
  if (value === null) throw new Error('There is nothing here.');
  return value;
}
