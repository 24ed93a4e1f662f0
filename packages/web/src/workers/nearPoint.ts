import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Evaluator,
  Refusal,
  conversionBetween,
  onOneGrid,
  orRefusal,
  rangesOf,
  timeAt,
  timesOf,
  valuesAtTimesOf,
} from '@heuristor/core';
import { shareOf } from '../traces/axes/axisScale';
import { type ChosenReadings, type Outline, type PlotAxis, type PointQuestion } from './protocol';

/** Points of one series against an axis, in the units in which they are drawn; null where the run has no such pair. */
function pointsOf(
  evaluator: Evaluator,
  workings: WorkingsDocument,
  { of, along, units }: Pick<PointQuestion, 'of' | 'along' | 'units'>,
) {
  const series = orRefusal(() => evaluator.series(workings, of));
  const other = orRefusal(() => (along === 't' ? null : evaluator.series(workings, along)));
  if (series instanceof Refusal || other instanceof Refusal) return null;
  const acrossUnit = other === null ? series.timeUnit : other.unit;
  const across = conversionBetween(acrossUnit, units.x);
  const up = conversionBetween(series.unit, units.y);
  if (across === null || up === null) return null;
  const places = other === null ? timesOf(series.sampling) : valuesAtTimesOf(other, series);
  return {
    series,
    x: (i: number) => places[i] * across.factor + across.offset,
    y: (i: number) => series.values[i] * up.factor + up.offset,
    count: series.values.length,
  };
}

const pixelsTo = (value: number, axis: PlotAxis): number => shareOf(value, axis) * axis.pixels;

/** When the point was read that stands nearest to a place on the screen; null where none is near. */
export function nearPoint(
  evaluator: Evaluator,
  workings: WorkingsDocument,
  question: PointQuestion,
): number | null {
  const points = pointsOf(evaluator, workings, question);
  if (points === null) return null;
  const { place, axes, reach } = question;
  const from = { x: pixelsTo(place.x, axes.x), y: pixelsTo(place.y, axes.y) };
  let nearest = -1;
  let least = reach * reach;
  for (let i = 0; i < points.count; i++) {
    const dx = pixelsTo(points.x(i), axes.x) - from.x;
    const dy = pixelsTo(points.y(i), axes.y) - from.y;
    const distance = dx * dx + dy * dy;
    if (distance < least) {
      least = distance;
      nearest = i;
    }
  }
  return nearest < 0 ? null : timeAt(points.series.sampling, nearest);
}

/** The readings behind a series whose points lie within an outline that was drawn around them. */
export function readingsWithin(
  evaluator: Evaluator,
  workings: WorkingsDocument,
  { outline, ...about }: Outline,
): ChosenReadings | null {
  const points = pointsOf(evaluator, workings, about);
  if (points === null || points.series.noise === null) return null;
  const { root } = points.series.noise;
  const { sampling } = root.readings();
  // Passes through a gate are made of edges, which mean nothing one by one.
  if (sampling.kind === 'events' || !onOneGrid(points.series.sampling, sampling)) return null;
  const inside: number[] = [];
  for (let i = 0; i < points.count; i++) if (isWithin(points.x(i), points.y(i), outline)) inside.push(i);
  return {
    channel: root.key.slice(evaluator.run.id.length + 1),
    ranges: rangesOf(inside),
    total: points.count,
  };
}

/** Whether a point lies within a closed outline: a ray from it crosses the outline an odd number of times. */
export function isWithin(x: number, y: number, outline: readonly { x: number; y: number }[]): boolean {
  let within = false;
  let before = outline[outline.length - 1];
  for (const corner of outline) {
    const crosses = corner.y > y !== before.y > y;
    if (crosses && x < ((before.x - corner.x) * (y - corner.y)) / (before.y - corner.y) + corner.x)
      within = !within;
    before = corner;
  }
  return within;
}
