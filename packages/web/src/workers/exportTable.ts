import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  Refusal,
  abscissaName,
  lineRef,
  orRefusal,
  writeColumns,
  writeHeading,
} from '@heuristor/core';

/** Runs with their derived series as CSV text; with several runs, every heading begins with the name of its run. */
export function exportTable(
  evaluators: { name: string; evaluator: Evaluator }[],
  workings: WorkingsDocument,
): string {
  const columns: { heading: string; values: Float64Array }[] = [];
  for (const { name, evaluator } of evaluators) {
    const prefix = evaluators.length > 1 ? `${name}: ` : '';
    const derived = workings.lines.flatMap((line) => {
      if (line.kind !== 'derivative' && line.kind !== 'integral') return [];
      const series = orRefusal(() => evaluator.series(workings, lineRef(line.id)));
      return series instanceof Refusal ? [] : [series];
    });
    const channels = evaluator.run.channels;
    let times: Float64Array | null = null;
    for (const series of [...channels, ...derived]) {
      // Channels that share their times share the column for them.
      if (series.times !== times) {
        columns.push({
          heading: prefix + writeHeading(abscissaName(series.timeUnit), series.timeUnit),
          values: series.times,
        });
        times = series.times;
      }
      columns.push({ heading: prefix + writeHeading(series.symbol, series.unit), values: series.values });
    }
  }
  return writeColumns(columns);
}
