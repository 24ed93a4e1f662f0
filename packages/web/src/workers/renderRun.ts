import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Entry,
  type Evaluator,
  type LeftOut,
  type Outcome,
  type Quantity,
  Refusal,
  type Series,
  type SeriesRef,
  canConvert,
  conversionFactor,
  halfWidth,
  indexAfter,
  indexAtOrAfter,
  intervalOf,
  orRefusal,
  printedUnit,
  pyramidOf,
  readingsSeries,
  thinPoints,
  thinSeries,
  timeAt,
  timed,
  timesOf,
  valuesAtTimesOf,
} from '@heuristor/core';
import {
  type Extent,
  type Line,
  type ThinLine,
  type RenderRequest,
  type RenderedRun,
  type RunTrace,
  type ShownOutcome,
  type ShownQuantity,
  type Sight,
} from './protocol';

/** Points of one quantity against another that can be told apart on a screen. */
const mostPoints = 6000;
const mostBars = 2000;
const roomAfterEvents = 0.04;

/** What was told last of one run, so that only what has changed is told again. */
export class Told {
  /** By entry. */
  readonly outcomes = new Map<string, Outcome>();
  /** By the series that the line shows. */
  readonly lines = new Map<SeriesRef, ToldLine>();

  forget(): void {
    this.outcomes.clear();
    this.lines.clear();
  }
}

interface ToldLine {
  /** Everything that decides the line but how fine it is. */
  inputs: unknown[];
  /** Whether it was drawn in passing, with half of what can be seen. */
  isCoarse: boolean;
}

/** Ends of the horizontal axis in one run; null where the run has no such quantity. */
export function extentOf(evaluator: Evaluator, workings: WorkingsDocument, along: SeriesRef): Extent | null {
  const series = orRefusal(() => evaluator.series(workings, along));
  if (series instanceof Refusal) return null;
  const { values, symbol, unit, quantity, sampling } = series;
  let low = Infinity;
  let high = -Infinity;
  const reach = along === 't' ? evaluator.reach() : null;
  if (reach !== null) {
    ({ low, high } = reach);
    // The last pass is not to stand on the edge of the plot.
    if (sampling.kind === 'events') high += roomAfterEvents * (high - low);
  } else
    for (let i = 0; i < values.length; i++) {
      if (values[i] < low) low = values[i];
      if (values[i] > high) high = values[i];
    }
  return {
    symbol,
    unit,
    quantity,
    low,
    high,
    step: along === 't' ? intervalOf(sampling) : null,
  };
}

/** Evaluates the workings over a run and makes what it draws for one stretch of the horizontal axis. */
export function renderRun(evaluator: Evaluator, request: RenderRequest, told: Told): RenderedRun {
  const { workings, traces, moving, frontRunId, afresh } = request;
  const isFront = evaluator.run.id === frontRunId;
  if (afresh) told.forget();
  const { outcomes } = evaluator.evaluate(workings, { moving });
  const seriesOf = (reference: SeriesRef) => orRefusal(() => evaluator.series(workings, reference));
  const horizontal = seriesOf(request.horizontal);
  const drawn: Record<string, RunTrace> = {};
  if (!(horizontal instanceof Refusal))
    for (const reference of traces) {
      const series = seriesOf(reference);
      if (series instanceof Refusal) continue;
      const { symbol, quantity, unit } = series;
      drawn[reference] = {
        symbol,
        quantity,
        unit,
        line: newLineOf(evaluator, reference, series, horizontal, request, told),
        whole: wholeOf(series),
        curves: moving && !isFront ? [] : curvesOn(reference, request, outcomes),
      };
    }
  for (const reference of told.lines.keys()) if (!(reference in drawn)) told.lines.delete(reference);
  return {
    runId: evaluator.run.id,
    entryIds: workings.entries.map(({ id }) => id),
    changed: changedSince(told.outcomes, outcomes),
    traces: drawn,
    residuals: residualsOf(workings, traces, outcomes, request),
  };
}

function wholeOf(series: Series): RunTrace['whole'] {
  const { low, high } = pyramidOf(series).extremes(series.values, 0, series.values.length);
  return low <= high ? { low, high } : null;
}

/** The line of a series, or null where the one that was told last still stands. */
function newLineOf(
  evaluator: Evaluator,
  reference: SeriesRef,
  series: Series,
  horizontal: Series,
  request: RenderRequest,
  { lines }: Told,
): ThinLine | null {
  const { sight, axisUnit, width, moving } = request;
  const isTime = request.horizontal === 't';
  const height = heightFor(series, request.heights[reference]);
  const inputs = [
    series,
    sight.from,
    sight.to,
    width,
    ...(isTime ? [] : [horizontal, printedUnit(axisUnit), height?.from, height?.to]),
  ];
  const before = lines.get(reference);
  const stands =
    before !== undefined &&
    before.inputs.length === inputs.length &&
    before.inputs.every((part, i) => part === inputs[i]) &&
    (moving || !before.isCoarse);
  if (stands) return null;
  lines.set(reference, { inputs, isCoarse: moving && isTime });
  const line: ThinLine = {
    ...lineOf(series, horizontal, height, request),
    ...(series.repeats === true ? { isDots: true } : {}),
    ...barsOf(series, horizontal, request),
  };
  if (!reference.startsWith('channel:')) return line;
  const key = reference.slice('channel:'.length);
  const pinned = pinnedIn(evaluator.pinnedOf(key), placesOf(series, horizontal, request), request);
  const strays = isTime ? straysIn(evaluator.straysOf(key), series, request) : noLine;
  const aside = asideIn(evaluator.asideOf(key), placesOf(series, horizontal, request), request);
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
  horizontal: Series,
  { horizontal: along, axisUnit }: Pick<RenderRequest, 'horizontal' | 'axisUnit'>,
): (index: number) => number {
  if (along === 't') return (index) => timeAt(sampling, index);
  const factor = canConvert(horizontal.unit, axisUnit) ? conversionFactor(horizontal.unit, axisUnit) : 1;
  const places = valuesAtTimesOf(horizontal, { ...horizontal, sampling, values });
  return (index) => places[index] * factor;
}

/** The stretch of the vertical axis that is looked at, in the unit of a series. */
function heightFor({ unit }: Series, set: RenderRequest['heights'][SeriesRef]): Sight | null {
  if (set === undefined || !canConvert(set.unit, unit)) return null;
  const factor = conversionFactor(set.unit, unit);
  const ends = [factor * set.from, factor * set.to];
  return { from: Math.min(...ends), to: Math.max(...ends) };
}

/** How far each value in sight may be off, where that is known one by one. */
function barsOf(
  { values, uncertainties, sampling }: Series,
  horizontal: Series,
  { horizontal: along, sight, axisUnit }: RenderRequest,
): Pick<ThinLine, 'bars'> {
  if (uncertainties === undefined) return {};
  const places = placesOf({ values, sampling }, horizontal, { horizontal: along, axisUnit });
  const chosen: number[] = [];
  for (let i = 0; i < values.length && chosen.length < mostBars; i++) {
    const at = places(i);
    const isKnown = uncertainties[i] > 0 && Number.isFinite(values[i]);
    if (isKnown && at >= sight.from && at <= sight.to) chosen.push(i);
  }
  if (chosen.length === 0) return {};
  return {
    bars: {
      x: Float64Array.from(chosen, places),
      y: Float64Array.from(chosen, (i) => values[i]),
      half: Float64Array.from(chosen, (i) => uncertainties[i]),
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
  horizontal: Series,
  height: Sight | null,
  { horizontal: along, sight, axisUnit, width, moving }: RenderRequest,
): ThinLine {
  const { sampling, values } = series;
  if (along === 't') {
    const first = Math.max(indexAtOrAfter(sampling, sight.from) - 1, 0);
    const end = Math.min(indexAfter(sampling, sight.to) + 1, values.length);
    if (sampling.kind === 'events' && end - first <= mostPoints) return stepsOf(series, first, end);
    return thinSeries(series, sight, bucketsFor(width, moving));
  }
  const factor = canConvert(horizontal.unit, axisUnit) ? conversionFactor(horizontal.unit, axisUnit) : 1;
  const own = valuesAtTimesOf(horizontal, series);
  const x = factor === 1 ? own : own.map((value) => value * factor);
  return thinPoints(x, values, sight, height, Math.max(width, 400), mostPoints);
}

/** What stands until it switches, as steps: before its first edge it stood otherwise. */
function stepsOf({ sampling, values }: Series, first: number, end: number): ThinLine {
  const count = end - first;
  const line = { x: new Float64Array(2 * count), y: new Float64Array(2 * count), isBand: false };
  for (let i = 0; i < count; i++) {
    line.x[2 * i] = line.x[2 * i + 1] = timeAt(sampling, first + i);
    line.y[2 * i] = 1 - values[first + i];
    line.y[2 * i + 1] = values[first + i];
  }
  return line;
}

/**
 * Least and greatest of every two pixels tell all that can be seen. While a hand moves, half of that is drawn: the eye cannot
 * follow more, and the hand is followed at once.
 */
const bucketsFor = (width: number, moving: boolean) =>
  Math.max(Math.round(moving ? width / 4 : width / 2), 100);

const fits = (entry: Entry): entry is Extract<Entry, { kind: 'fit' }> => entry.kind === 'fit';

function curvesOn(
  reference: SeriesRef,
  { workings: { entries }, horizontal }: RenderRequest,
  outcomes: Map<string, Outcome>,
): Line[] {
  return entries.flatMap((entry): Line[] => {
    if (!('of' in entry) || entry.of !== reference) return [];
    if (('against' in entry ? entry.against : 't') !== horizontal) return [];
    const outcome = outcomes.get(entry.id);
    const curve = outcome?.kind === 'results' ? (outcome.fitted?.curve ?? outcome.curve) : undefined;
    return curve === undefined ? [] : [curve];
  });
}

function residualsOf(
  { entries }: WorkingsDocument,
  traces: readonly SeriesRef[],
  outcomes: Map<string, Outcome>,
  { width, sight }: RenderRequest,
): Record<string, RunTrace> {
  const found: Record<string, RunTrace> = {};
  for (const entry of entries.filter(fits)) {
    if (!entry.showResiduals || !traces.includes(entry.of)) continue;
    const outcome = outcomes.get(entry.id);
    if (outcome?.kind !== 'results' || outcome.fitted === null) continue;
    const { x, y } = outcome.fitted.residuals();
    found[entry.id] = {
      symbol: 'residuals',
      quantity: '',
      unit: outcome.fitted.unit,
      line: thinResiduals(x, y, width, sight),
      whole: null,
      curves: [],
    };
  }
  return found;
}

function thinResiduals(x: Float64Array, y: Float64Array, width: number, sight: Sight): ThinLine {
  if (x.some((value, i) => i > 0 && !(value > x[i - 1])))
    return thinPoints(x, y, sight, null, Math.max(width, 400), mostPoints);
  const series = readingsSeries({
    symbol: '',
    quantity: '',
    unit: [],
    timeUnit: [],
    sampling: timed(x),
    values: y,
  });
  return thinSeries(series, sight, Math.max(Math.round(width), 100));
}

function changedSince(
  told: Map<string, Outcome>,
  outcomes: Map<string, Outcome>,
): Record<string, ShownOutcome> {
  const changed: Record<string, ShownOutcome> = {};
  for (const [id, outcome] of outcomes) {
    const before = told.get(id);
    if (before === outcome) continue;
    told.set(id, outcome);
    if (before?.kind === 'refused' && outcome.kind === 'refused' && before.sentence === outcome.sentence)
      continue;
    changed[id] = shownOutcome(outcome);
  }
  for (const id of told.keys()) if (!outcomes.has(id)) told.delete(id);
  return changed;
}

function shownOutcome(outcome: Outcome): ShownOutcome {
  switch (outcome.kind) {
    case 'refused':
      return outcome;
    case 'region':
      return { kind: 'region' };
    case 'series': {
      const { symbol, quantity, unit, sampling, values } = outcome.series;
      const { passes } = outcome;
      return {
        kind: 'series',
        symbol,
        quantity,
        unit,
        interval: intervalOf(sampling),
        notes: outcome.notes,
        ...(passes === undefined
          ? {}
          : {
              passes: {
                times: timesOf(sampling).slice(),
                values,
                uncertainties: outcome.series.uncertainties ?? new Float64Array(values.length).fill(NaN),
                leftOut: passes.leftOut,
                mean: passes.mean === null ? null : shownQuantity(passes.mean),
                standardDeviation: passes.standardDeviation,
              },
            }),
      };
    }
    case 'results': {
      const { results, notes, fitted } = outcome;
      return {
        kind: 'results',
        results: results.map(({ key, name, quantity, roundTo, main }) => ({
          key,
          name,
          roundTo,
          main,
          ...shownQuantity(quantity),
        })),
        notes,
        correlations: fitted?.correlations ?? null,
        count: fitted?.count ?? null,
      };
    }
  }
}

function shownQuantity(quantity: Quantity): ShownQuantity {
  const { value, unit, standardUncertainty, degreesOfFreedom } = quantity;
  return {
    value,
    unit,
    standardUncertainty,
    halfWidth: halfWidth(quantity),
    degreesOfFreedom: Number.isFinite(degreesOfFreedom) ? degreesOfFreedom : null,
  };
}
