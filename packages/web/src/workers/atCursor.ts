import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  Refusal,
  type Series,
  type SeriesRef,
  divideUnits,
  nearestReading,
  noiseAt,
  orRefusal,
  tangentAt,
  timeAt,
  valueAt,
} from '@heuristor/core';
import { type CursorQuestion, type CursorReading, type CursorValue } from './protocol';

/** What the series of a run are at a place of the time axis; a series that does not reach there is left out. */
export function readAt(
  evaluator: Evaluator,
  { workings, references, at, snap, tangentPoints, withNoise }: CursorQuestion,
): CursorReading {
  const values: CursorReading['values'] = {};
  for (const reference of references) {
    const series = orRefusal(() => evaluator.series(workings, reference));
    if (series instanceof Refusal) continue;
    const value = valueOf(series, at, snap, tangentPoints, withNoise);
    if (value !== null) values[reference] = value;
  }
  return { runId: evaluator.run.id, values };
}

function valueOf(
  series: Series,
  at: number,
  snap: boolean,
  tangentPoints: number | null,
  withNoise: boolean,
): CursorValue | null {
  const { values, sampling, unit, timeUnit } = series;
  const count = values.length;
  if (count === 0) return null;
  const [from, to] = [timeAt(sampling, 0), timeAt(sampling, count - 1)];
  // The pointer may stand beside the first or the last reading by half the way to the next one.
  const spare = count > 1 ? (to - from) / (count - 1) / 2 : 0;
  if (!(at >= from - spare && at <= to + spare)) return null;
  const index = nearestReading(series, at);
  const [x, y] = snap ? [timeAt(sampling, index), values[index]] : [at, valueAt(series, at)];
  if (Number.isNaN(y)) return null;
  const touching =
    tangentPoints === null || sampling.kind === 'events'
      ? null
      : orRefusal(() => tangentAt(series, at, { windowPoints: tangentPoints }));
  return {
    x,
    y,
    unit,
    noise: withNoise ? noiseAt(series, index) : null,
    tangent:
      touching === null || touching instanceof Refusal
        ? null
        : { slope: touching.slope, window: touching.window, unit: divideUnits(unit, timeUnit) },
  };
}

/** The place so many readings further on, at most the first or the last one. */
export function steppedFrom(
  evaluator: Evaluator,
  workings: WorkingsDocument,
  reference: SeriesRef,
  at: number,
  by: number,
): number | null {
  const series = orRefusal(() => evaluator.series(workings, reference));
  if (series instanceof Refusal || series.values.length === 0) return null;
  const index = Math.min(Math.max(nearestReading(series, at) + by, 0), series.values.length - 1);
  return timeAt(series.sampling, index);
}
