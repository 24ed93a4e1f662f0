import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  Refusal,
  type SeriesRef,
  type Unit,
  crossingsOf,
  extremeOf,
  indexAfter,
  indexAtOrAfter,
  orRefusal,
  readIn,
} from '@heuristor/core';

/** Something by which runs can be aligned. */
export type RunEvent =
  | { kind: 'crossing'; of: SeriesRef; level: number; unit: Unit; direction: 'rise' | 'fall' }
  | { kind: 'greatest' | 'least'; of: SeriesRef; from: number; to: number };

export interface RunMoments {
  runId: string;
  moments: number[];
}

/** When something happens in a run. */
export function momentsIn(evaluator: Evaluator, workings: WorkingsDocument, event: RunEvent): RunMoments {
  const series = orRefusal(() => evaluator.series(workings, event.of));
  const runId = evaluator.run.id;
  if (series instanceof Refusal) return { runId, moments: [] };
  if (event.kind === 'crossing') {
    const level = readIn(event.level, event.unit, series.unit);
    return { runId, moments: level === null ? [] : [...crossingsOf(series, level, event.direction)] };
  }
  const { sampling } = series;
  const moment = extremeOf(
    series,
    event.kind,
    indexAtOrAfter(sampling, event.from),
    indexAfter(sampling, event.to),
  );
  return { runId, moments: moment === null ? [] : [moment] };
}
