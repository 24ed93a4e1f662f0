import { type Channel, type Run, type WorkingsDocument, channelOf } from '@heuristor/contracts';
import { type Ranges, rangesOf, tabled, ucumCode } from '@heuristor/core';
import { type RunReadings } from '@heuristor/evaluation';
import { type TableView, type TrialRow, type ViewColumn } from './tableView';

/** A table as a run: its rows are readings, its columns of numbers are channels. */
export interface DerivedRun {
  run: Run;
  readings(): RunReadings;
  /** The rows that are readings, in their order. */
  rows: readonly TrialRow[];
  /** Rows that are left out, for each channel. */
  aside: WorkingsDocument['aside'];
}

/** Columns that hold numbers. */
export const numberColumns = (columns: readonly ViewColumn[]): ViewColumn[] =>
  columns.filter(({ unit, column }) => unit !== null && !(column.kind === 'run' && column.of !== 'number'));

let lastChannel = 0;

/**
 * @param id of the run, which is no stored one
 * @param isCounted which rows are looked at; the others are not in it
 */
export function derivedRun(
  { columns, rows }: TableView,
  id: string,
  isCounted: (row: TrialRow) => boolean,
): DerivedRun {
  const counted = rows.filter(isCounted);
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
      sampling: { kind: 'regular', start: 1, interval: 1 },
    }),
    // No stored channel has such a number.
    id: --lastChannel,
  }));
  const away = rangesOf(counted.flatMap(({ leftOut }, i) => (leftOut === null ? [] : [i])));
  return {
    rows: counted,
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
      number: 1,
      name: 'Trials',
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
      times: tables.map(() => null),
      single: tables.map(({ uncertainties, together, beside }) => ({
        uncertainties,
        pinned: new Uint8Array(uncertainties.length),
        together,
        beside,
      })),
    }),
  };
}
