import {
  type Evaluator,
  type LeftOut,
  type Series,
  type SeriesRef,
  conversionBetween,
  indexAfter,
  indexAtOrAfter,
  printedUnit,
  thinPoints,
  thinSeries,
  timeAt,
  valuesAtTimesOf,
} from '@heuristor/core';
import { counted } from '../traces/axes/axisScale';
import { type Horizontal, onAxis } from './across';
import { type Line, type RenderRequest, type Sight, type ThinLine } from '../workers/protocol';
import { type LastSent, stands } from './lastSent';

/** Points of one quantity against another that can be told apart on a screen. */
export const mostPoints = 6000;
const mostBars = 2000;
type Reach = NonNullable<ReturnType<Evaluator['reach']>>;

/** The line of a series, or null where the one that was sent last still stands. */
export function newLineOf(
  evaluator: Evaluator,
  reference: SeriesRef,
  series: Series,
  horizontal: Horizontal,
  request: RenderRequest,
  { lines }: LastSent,
): ThinLine | null {
  const { sight, axisUnit, width, moving } = request;
  const isTime = request.horizontal === 't';
  const height = heightFor(series, request.heights[reference]);
  const reach = series.sampling.kind === 'events' ? evaluator.reach() : null;
  const inputs = [
    series,
    reach?.high,
    sight.from,
    sight.to,
    sight.isLogarithmic,
    width,
    ...(isTime ? [] : [horizontal.series, printedUnit(axisUnit), height?.from, height?.to]),
  ];
  if (stands(lines.get(reference), inputs, moving)) return null;
  lines.set(reference, { inputs, isCoarse: moving && isTime });
  const line: ThinLine = {
    ...lineOf(series, horizontal, height, reach, request),
    ...(series.repeats === true ? { isDots: true } : {}),
    ...barsOf(series, horizontal, request),
  };
  if (!reference.startsWith('channel:')) return line;
  const key = reference.slice('channel:'.length);
  const pinned = pinnedIn(evaluator.pinnedOf(key), placesOf(series, horizontal, request), request);
  const strays = isTime ? straysIn(evaluator.straysOf(key), series, request) : noLine;
  const aside = asideIn(evaluator.asideOf(key), placesAside(evaluator, series, horizontal, request), request);
  return {
    ...line,
    ...(pinned.x.length === 0 ? {} : { pinned }),
    ...(strays.x.length === 0 ? {} : { strays }),
    ...(aside.x.length === 0 ? {} : { aside }),
  };
}

const noLine: Line = { x: new Float64Array(0), y: new Float64Array(0) };

/** Where each value of a series stands on the horizontal axis, in the unit of that. */
function placesOf(
  { sampling, values }: Pick<Series, 'sampling' | 'values'>,
  { series, across }: Horizontal,
  { horizontal: along }: Pick<RenderRequest, 'horizontal'>,
): (index: number) => number {
  if (along === 't') return (index) => timeAt(sampling, index);
  const places = onAxis(valuesAtTimesOf(series, { ...series, sampling, values }), across);
  return (index) => places[index];
}

/** The same, also where what stands along the axis was set aside itself: a row that does not count lies where it was. */
function placesAside(
  evaluator: Evaluator,
  series: Series,
  horizontal: Horizontal,
  request: RenderRequest,
): (index: number) => number {
  const places = placesOf(series, horizontal, request);
  const { horizontal: along } = request;
  if (!along.startsWith('channel:')) return places;
  const { factor, offset } = horizontal.across;
  const aside = new Map(
    evaluator
      .asideOf(along.slice('channel:'.length))
      .map(({ index, value }) => [index, value * factor + offset]),
  );
  return (index) => aside.get(index) ?? places(index);
}

/** The stretch of the vertical axis that is looked at, in the unit of a series. */
function heightFor({ unit }: Series, set: RenderRequest['heights'][SeriesRef]): Sight | null {
  const conversion = set === undefined ? null : conversionBetween(set.unit, unit);
  if (set === undefined || conversion === null) return null;
  const ends = [set.from, set.to].map((end) => conversion.factor * end + conversion.offset);
  return { from: Math.min(...ends), to: Math.max(...ends) };
}

/** How far each value in sight may be off, where that is known one by one. */
function barsOf(
  { values, uncertainties, sampling }: Series,
  horizontal: Horizontal,
  { horizontal: along, sight }: RenderRequest,
): Pick<ThinLine, 'bars'> {
  if (uncertainties === undefined) return {};
  const places = placesOf({ values, sampling }, horizontal, { horizontal: along });
  const chosen: number[] = [];
  for (let i = 0; i < values.length && chosen.length < mostBars; i++) {
    const at = places(i);
    const isKnown =
      (uncertainties[i] > 0 || (horizontal.series.uncertainties?.[i] ?? 0) > 0) && Number.isFinite(values[i]);
    if (isKnown && at >= sight.from && at <= sight.to) chosen.push(i);
  }
  if (chosen.length === 0) return {};
  const ofPlaces = along === 't' ? undefined : horizontal.series.uncertainties;
  const factor = Math.abs(horizontal.across.factor);
  return {
    bars: {
      x: Float64Array.from(chosen, places),
      y: Float64Array.from(chosen, (i) => values[i]),
      half: Float64Array.from(chosen, (i) => (uncertainties[i] > 0 ? uncertainties[i] : 0)),
      ...(ofPlaces === undefined
        ? {}
        : { across: Float64Array.from(chosen, (i) => (ofPlaces[i] > 0 ? factor * ofPlaces[i] : 0)) }),
    },
  };
}

/** Readings at a limit that can be told apart on the screen. */
function pinnedIn(
  numbers: Float64Array,
  places: (index: number) => number,
  { sight, width }: RenderRequest,
): Line {
  const x: number[] = [];
  const y: number[] = [];
  const pixel = (sight.to - sight.from) / Math.max(width, 1);
  for (const number of numbers) {
    const at = places(Math.abs(number) - 1);
    if (!(at >= sight.from && at <= sight.to)) continue;
    if (x.length > 0 && y[y.length - 1] === Math.sign(number) && at - x[x.length - 1] < 4 * pixel) continue;
    x.push(at);
    y.push(Math.sign(number));
  }
  return { x: Float64Array.from(x), y: Float64Array.from(y) };
}

/** Readings in sight that were set aside, where they were read; of very many, as many as can be told apart. */
function asideIn(
  aside: readonly LeftOut[],
  places: (index: number) => number,
  { sight }: RenderRequest,
): Line {
  const seen = aside
    .map(({ index, value }) => ({ at: places(index), value }))
    .filter(({ at, value }) => at >= sight.from && at <= sight.to && !Number.isNaN(value));
  const every = Math.ceil(seen.length / mostBars);
  const shown = seen.filter((_, i) => i % every === 0);
  return {
    x: Float64Array.from(shown, ({ at }) => at),
    y: Float64Array.from(shown, ({ value }) => value),
  };
}

/** Wrong echoes in sight, where they were read. */
function straysIn(strays: readonly LeftOut[], { sampling }: Series, { sight }: RenderRequest): Line {
  const seen = strays
    .map(({ index, value }) => ({ at: timeAt(sampling, index), value }))
    .filter(({ at }) => at >= sight.from && at <= sight.to);
  return {
    x: Float64Array.from(seen, ({ at }) => at),
    y: Float64Array.from(seen, ({ value }) => value),
  };
}

function lineOf(
  series: Series,
  horizontal: Horizontal,
  height: Sight | null,
  reach: Reach | null,
  { horizontal: along, sight, width, moving }: RenderRequest,
): ThinLine {
  const { sampling, values } = series;
  if (along === 't') {
    const first = Math.max(indexAtOrAfter(sampling, sight.from) - 1, 0);
    const end = Math.min(indexAfter(sampling, sight.to) + 1, values.length);
    if (sampling.kind === 'events' && end - first <= mostPoints) return stepsOf(series, first, end, reach);
    return thinSeries(series, sight, bucketsFor(width, moving));
  }
  const x = onAxis(valuesAtTimesOf(horizontal.series, series), horizontal.across);
  const grid = Math.max(width, 400);
  if (sight.isLogarithmic !== true || x.length <= mostPoints)
    return thinPoints(x, values, sight, height, grid, mostPoints);
  // So many that some fall together are told apart as they stand on their axis.
  const thin = thinPoints(x.map(Math.log), values, counted(sight), height, grid, mostPoints);
  return { ...thin, x: thin.x.map(Math.exp) };
}

/**
 * What stands until it switches, as steps: before its first edge it stood otherwise.
 * @param reach the time of the run, over all of which it stood one way or the other
 */
function stepsOf({ sampling, values }: Series, first: number, end: number, reach: Reach | null): ThinLine {
  const x: number[] = [];
  const y: number[] = [];
  const add = (at: number, value: number) => {
    x.push(at);
    y.push(value);
  };
  for (let i = first; i < end; i++) {
    const at = timeAt(sampling, i);
    if (i === 0 && reach !== null && reach.low < at) add(reach.low, 1 - values[i]);
    add(at, 1 - values[i]);
    add(at, values[i]);
    if (i === values.length - 1 && reach !== null && reach.high > at) add(reach.high, values[i]);
  }
  return { x: Float64Array.from(x), y: Float64Array.from(y), isBand: false };
}

/**
 * Least and greatest of every two pixels tell all that can be seen. While a hand moves, half of that is drawn: the eye cannot
 * follow more, and the hand is followed at once.
 */
const bucketsFor = (width: number, moving: boolean) =>
  Math.max(Math.round(moving ? width / 4 : width / 2), 100);
