import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  Refusal,
  type Series,
  abscissaName,
  channelRef,
  entryRef,
  onOneGrid,
  orRefusal,
  timesOf,
  writeHeading,
  yieldsSeries,
} from '@heuristor/core';

export interface HeadedColumn {
  heading: string;
  values: Float64Array;
}

/**
 * A run with its derived series as columns: `recorded` holds the readings of each channel by its key, `prefix` begins every heading where several runs stand side by side. Readings are
 * those that were recorded, pinned ones included.
 */
export function exportColumns(
  evaluator: Evaluator,
  recorded: ReadonlyMap<string, Float64Array>,
  prefix: string,
  workings: WorkingsDocument,
): HeadedColumn[] {
  const columns: HeadedColumn[] = [];
  let last: Series | null = null;
  const add = (series: Series, values: Float64Array) => {
    // Series that share their times share the column for them.
    if (last === null || !onOneGrid(last.sampling, series.sampling))
      columns.push({
        heading: prefix + writeHeading(abscissaName(series.timeUnit), series.timeUnit),
        values: timesOf(series.sampling),
      });
    last = series;
    columns.push({ heading: prefix + writeHeading(series.symbol, series.unit), values });
  };
  for (const [key, values] of recorded) {
    const series = orRefusal(() => evaluator.series(workings, channelRef(key)));
    if (!(series instanceof Refusal)) add(series, values);
  }
  for (const entry of workings.entries.filter(yieldsSeries)) {
    const series = orRefusal(() => evaluator.series(workings, entryRef(entry.id)));
    if (!(series instanceof Refusal)) add(series, series.values);
  }
  return columns;
}
