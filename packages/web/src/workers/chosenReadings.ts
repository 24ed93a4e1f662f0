import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  type HampelRule,
  Refusal,
  type SeriesRef,
  hampelOutliers,
  indexAfter,
  indexAtOrAfter,
  onOneGrid,
  orRefusal,
  parseUnit,
  rangesOf,
  readIn,
  valuesAtTimesOf,
} from '@heuristor/core';
import { type ChosenReadings, type AxisInterval } from './protocol';

/**
 * The readings behind a series that lie in a stretch of an axis: those of the channel that it comes from.
 * @returns null where the run has no such series, or its values are not those of single readings
 */
export function readingsIn(
  evaluator: Evaluator,
  workings: WorkingsDocument,
  reference: SeriesRef,
  { along, unit, ...ends }: AxisInterval,
): ChosenReadings | null {
  const series = orRefusal(() => evaluator.series(workings, reference));
  if (series instanceof Refusal || series.noise === null) return null;
  const { sampling } = series.noise.root.readings();
  // Passes through a gate are made of edges, which mean nothing one by one.
  if (sampling.kind === 'events' || !onOneGrid(series.sampling, sampling)) return null;
  const channel = channelOf(series.noise.root.key, evaluator.run.id);
  const total = series.values.length;
  if (along === 't') {
    const { start, end } = ends;
    const [first, past] = [indexAtOrAfter(series.sampling, start), indexAfter(series.sampling, end)];
    return { channel, ranges: past > first ? [[first, past]] : [], total };
  }
  const other = orRefusal(() => evaluator.series(workings, along));
  if (other instanceof Refusal) return null;
  const [start, end] = [ends.start, ends.end].map((place) =>
    unit === undefined ? place : readIn(place, parseUnit(unit), other.unit),
  );
  // What was marked along a length says nothing of a run in which that is something else.
  if (start === null || end === null) return null;
  const places = valuesAtTimesOf(other, series);
  const inside: number[] = [];
  for (let i = 0; i < total; i++) if (places[i] >= start && places[i] <= end) inside.push(i);
  return { channel, ranges: rangesOf(inside), total };
}

/** The outliers in an interval of time: readings that differ from their neighbours. */
export function outliersIn(
  evaluator: Evaluator,
  workings: WorkingsDocument,
  reference: SeriesRef,
  interval: AxisInterval,
  rule: HampelRule,
): ChosenReadings | null {
  const chosen = readingsIn(evaluator, workings, reference, interval);
  if (chosen === null) return null;
  const series = evaluator.series(workings, `channel:${chosen.channel}`);
  const resolution = evaluator.run.channels.find(({ key }) => key === chosen.channel)?.noise ?? 0;
  const found = chosen.ranges.flatMap(([first, past]) =>
    hampelOutliers(series.values, rule, { first, past, resolution }),
  );
  return { ...chosen, ranges: rangesOf(found) };
}

/** Roots are called by their run and their channel. */
const channelOf = (root: string, run: string): string => root.slice(run.length + 1);
