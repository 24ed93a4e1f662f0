import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  Refusal,
  type Series,
  type SeriesRef,
  abscissaName,
  nameIn,
  nearestReading,
  noiseAt,
  onOneGrid,
  orRefusal,
  timeAt,
  timesOf,
  valuesAtTimesOf,
  writeColumns,
  writeHeading,
} from '@heuristor/core';
import { type TablePart, type TableShape } from './protocol';

/** What a table of a run is asked for. */
interface Asked {
  evaluator: Evaluator;
  /** Readings of each channel as they were recorded, by its key. */
  recorded: ReadonlyMap<string, Float64Array>;
  workings: WorkingsDocument;
  references: readonly SeriesRef[];
}

/** A column: a series, and its values at the times of the rows. */
interface Column {
  series: Series;
  /** As recorded, also where they are no measurement or were set aside. */
  values: Float64Array;
  /** Whether it was read at other times: what stands in the rows lies between its readings. */
  isBetween: boolean;
}

/** The columns of a table; its rows are the readings of the first one that the run has. */
function columnsOf({ evaluator, recorded, workings, references }: Asked): {
  base: Series | null;
  columns: (Column | null)[];
} {
  let base: Series | null = null;
  const columns = references.map((reference): Column | null => {
    const series = orRefusal(() => evaluator.series(workings, reference));
    if (series instanceof Refusal) return null;
    base ??= series;
    const isBetween = !onOneGrid(base.sampling, series.sampling);
    const own = reference.startsWith('channel:') ? recorded.get(nameIn(reference)) : undefined;
    const values = isBetween
      ? valuesAtTimesOf(series, base)
      : own !== undefined && own.length >= base.values.length
        ? own.subarray(0, base.values.length)
        : valuesAtTimesOf(series, base);
    return { series, values, isBetween };
  });
  return { base, columns };
}

/** How many rows a table has, and what its columns are; null where the run has none of its series. */
export function tableShape(asked: Asked): TableShape | null {
  const { base, columns } = columnsOf(asked);
  if (base === null) return null;
  const { values, timeUnit, sampling } = base;
  const count = values.length;
  const [from, to] = count === 0 ? [0, 0] : [timeAt(sampling, 0), timeAt(sampling, count - 1)];
  return {
    count,
    abscissa: { symbol: abscissaName(timeUnit), quantity: 'time', unit: timeUnit },
    step: count > 1 ? (to - from) / (count - 1) : null,
    columns: columns.map((column) =>
      column === null
        ? null
        : {
            symbol: column.series.symbol,
            quantity: column.series.quantity,
            unit: column.series.unit,
            noise: noiseAt(column.series, column.series.values.length >> 1),
            isBetween: column.isBetween,
          },
    ),
  };
}

/** Rows of a table from `first` on. */
export function tablePart(asked: Asked, first: number, count: number): TablePart | null {
  const { base, columns } = columnsOf(asked);
  if (base === null) return null;
  const past = Math.min(first + count, base.values.length);
  const length = Math.max(past - first, 0);
  return {
    first,
    times: Float64Array.from({ length }, (_, i) => timeAt(base.sampling, first + i)),
    columns: columns.map((column) => column?.values.slice(first, past) ?? null),
    leftOut: columns.map((column) =>
      column === null
        ? null
        : Uint8Array.from({ length }, (_, i) =>
            !column.isBetween &&
            Number.isNaN(column.series.values[first + i]) &&
            !Number.isNaN(column.values[first + i])
              ? 1
              : 0,
          ),
    ),
  };
}

/** The row of the reading nearest to a place on the abscissa; null of no rows. */
export function tableRow(asked: Asked, at: number): number | null {
  const { base } = columnsOf(asked);
  return base === null || base.values.length === 0 ? null : nearestReading(base, at);
}

/** Rows as CSV text, as a file of columns has them: every digit that matters. */
export function tableText(asked: Asked, first: number, past: number): string {
  const { base, columns } = columnsOf(asked);
  if (base === null) return '';
  return writeColumns([
    {
      heading: writeHeading(abscissaName(base.timeUnit), base.timeUnit),
      values: timesOf(base.sampling).slice(first, past),
    },
    ...columns.flatMap((column) =>
      column === null
        ? []
        : [
            {
              heading: writeHeading(column.series.symbol, column.series.unit),
              values: column.values.slice(first, past),
            },
          ],
    ),
  ]);
}
