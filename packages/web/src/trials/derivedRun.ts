import { type Channel, type Run, type WorkingsDocument, channelOf } from '@heuristor/contracts';
import { type Ranges, rangesOf, tabled, ucumCode } from '@heuristor/core';
import { type RunReadings } from '@heuristor/evaluation';
import { groupsOf } from './groups';
import { type TableView, type TrialRow, type ViewColumn } from './tableView';

/** A table, or a group of its rows, as a run: its rows are readings, its columns of numbers are channels. */
export interface DerivedRun {
  run: Run;
  readings(): RunReadings;
  /** The rows that are readings, in their order. */
  rows: readonly TrialRow[];
  /** Where each of them stands among all rows of the table that are readings, from 1: its place on the abscissa. */
  places: readonly number[];
  /** Rows that are left out, for each channel. */
  aside: WorkingsDocument['aside'];
}

/** Columns that hold numbers. */
export const numberColumns = (columns: readonly ViewColumn[]): ViewColumn[] =>
  columns.filter(({ unit, column }) => unit !== null && !(column.kind === 'run' && column.of !== 'number'));

let lastChannel = 0;

/** So many groups can be drawn apart; of more, colours and dashes come again. */
export const mostGroups = 24;

/**
 * One run of all rows, or one for each group of them.
 * @param id of the run, which is no stored one
 * @param isCounted which rows are looked at; the others are not in it
 * @param apart the column by whose words rows are told apart; null for all together
 */
export function derivedRuns(
  view: TableView,
  id: string,
  isCounted: (row: TrialRow) => boolean,
  apart: string | null,
): DerivedRun[] {
  const counted = view.rows.filter(isCounted);
  const place = new Map(counted.map((row, i) => [row.id, i + 1]));
  const groups = apart === null ? [] : groupsOf(counted, apart).filter(({ isAll }) => !isAll);
  if (groups.length === 0 || groups.length > mostGroups)
    return [
      runOfRows(view, { id, name: 'Trials', number: 1, rows: counted, places: counted.map((_, i) => i + 1) }),
    ];
  return groups.map(({ name, rows }, i) =>
    runOfRows(view, {
      // Known by its words, so that what is said of it stays with it.
      id: `${id}/${hashOf(name)}`,
      name,
      number: i + 1,
      rows,
      places: rows.map((row) => place.get(row.id) ?? 0),
    }),
  );
}

/** A short text that is another one for another text, as a run's id has room for. */
function hashOf(text: string): string {
  let hash = 5381;
  for (const letter of text) hash = (33 * hash + (letter.codePointAt(0) ?? 0)) % 2 ** 32;
  return hash.toString(36);
}

interface RowsOfRun {
  id: string;
  name: string;
  number: number;
  rows: readonly TrialRow[];
  places: readonly number[];
}

function runOfRows(
  { columns }: TableView,
  { id, name, number, rows: counted, places }: RowsOfRun,
): DerivedRun {
  // Without a gap between them, they are as regular as the rows of one table.
  const isRegular = places.every((place, i) => place === places[0] + i);
  const numbers = numberColumns(columns);
  const tables = tabled(
    numbers.map(({ key, unit }) => ({
      key,
      unit: unit ?? [],
      cells: counted.map(({ cells }) => cells[key]),
    })),
  );
  const channels = numbers.map(({ key, title, unit }): Channel => ({
    ...channelOf({
      key,
      symbol: title,
      quantity: title,
      unit: ucumCode(unit ?? []),
      timeUnit: '',
      sampling: isRegular ? { kind: 'regular', start: places[0] ?? 1, interval: 1 } : { kind: 'timed' },
    }),
    // No stored channel has such a number.
    id: --lastChannel,
  }));
  const away = rangesOf(counted.flatMap(({ leftOut }, i) => (leftOut === null ? [] : [i])));
  return {
    rows: counted,
    places,
    aside:
      away.length === 0
        ? []
        : numbers.map(({ key }) => ({
            run: id,
            channel: key,
            ranges: [...away] as Ranges as [number, number][],
          })),
    run: {
      id,
      investigationId: '',
      number,
      name,
      origin: 'recorded',
      state: 'ended',
      startedAt: new Date(0).toISOString(),
      timeZone: null,
      removed: false,
      gaps: [],
      notes: [],
      plan: null,
      practice: false,
      conditions: {},
      group: '',
      remark: '',
      planned: null,
      channels,
      spot: null,
    },
    readings: () => ({
      values: tables.map(({ values }) => values.slice()),
      times: tables.map(() => (isRegular ? null : Float64Array.from(places))),
      single: tables.map(({ uncertainties, together, beside }) => ({
        uncertainties,
        pinned: new Uint8Array(uncertainties.length),
        together,
        beside,
      })),
    }),
  };
}
