import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Entry,
  type Evaluator,
  type Outcome,
  Refusal,
  type Series,
  type SeriesRef,
  drawsCurve,
  entryRef,
  intervalOf,
  isFit,
  orRefusal,
  pyramidOf,
  readingsSeries,
  thinPoints,
  thinSeries,
  timed,
  faultOutcome,
  intervalUnit,
} from '@heuristor/core';
import { type Across, acrossOf, inRun, onAxis } from './across';
import { attempt } from './attempt';
import {
  type Extent,
  type FittedCurve,
  type RenderRequest,
  type RenderedRun,
  type RunTrace,
  type ShownOutcome,
  type Sight,
  type ThinLine,
} from '../workers/protocol';
import { graphsOf } from './renderGraph';
import { mostPoints, newLineOf } from './renderLine';
import { shownOutcome } from '../workers/shownOutcome';
import { besideFit, curveAlong } from './besideFit';
import { type LastSent } from './lastSent';

const roomAboutEvents = 0.04;

/** Ends of the horizontal axis in one run; null where the run has no such quantity. */
export function extentOf(evaluator: Evaluator, workings: WorkingsDocument, along: SeriesRef): Extent | null {
  const series = orRefusal(() => evaluator.series(workings, along));
  if (series instanceof Refusal) return null;
  const { values, symbol, unit, quantity, sampling } = series;
  let low = Infinity;
  let high = -Infinity;
  let leastPositive = Infinity;
  let notPositive = 0;
  const reach = along === 't' ? evaluator.reach() : null;
  if (reach !== null) {
    ({ low, high } = reach);
    // Nothing was read before the first pass, and neither it nor the last one is to stand on the edge of the plot.
    const edges = evaluator.edges();
    if (edges !== null) {
      const { first, last } = edges;
      const room = roomAboutEvents * (last - first);
      [low, high] = [Math.max(first - room, low), last + room];
    }
  } else
    for (let i = 0; i < values.length; i++) {
      if (values[i] < low) low = values[i];
      if (values[i] > high) high = values[i];
      if (values[i] <= 0) notPositive++;
      else if (values[i] < leastPositive) leastPositive = values[i];
    }
  return {
    symbol,
    unit,
    quantity,
    low,
    high,
    leastPositive: leastPositive < Infinity ? leastPositive : null,
    notPositive,
    step: along === 't' ? intervalOf(sampling) : null,
  };
}

/** Evaluates the workings over a run and makes what it draws for one part of the horizontal axis. */
export function renderRun(evaluator: Evaluator, request: RenderRequest, lastSent: LastSent): RenderedRun {
  const { workings, traces, moving, frontRunId, asksForAll, conditions } = request;
  const isFront = evaluator.run.id === frontRunId;
  if (asksForAll) lastSent.forget();
  const { [evaluator.run.id]: said = [] } = conditions;
  evaluator.say(said);
  const only = wantedOf(request, isFront);
  const { outcomes } = evaluator.evaluate(workings, { moving, ...(only === null ? {} : { only }) });
  const seriesOf = (reference: SeriesRef) => orRefusal(() => evaluator.series(workings, reference));
  const horizontal = seriesOf(request.horizontal);
  const drawn: Record<string, RunTrace> = {};
  const across = horizontal instanceof Refusal ? null : acrossOf(horizontal, request);
  if (!(horizontal instanceof Refusal))
    for (const reference of traces) {
      const series = seriesOf(reference);
      if (series instanceof Refusal) continue;
      const { symbol, quantity, unit } = series;
      if (across === null) {
        drawn[reference] = {
          symbol,
          quantity,
          unit,
          line: noLine,
          whole: null,
          curves: [],
          isElsewhere: true,
        };
        lastSent.lines.delete(reference);
        continue;
      }
      drawn[reference] = {
        symbol,
        quantity,
        unit,
        line: newLineOf(evaluator, reference, series, { series: horizontal, across }, request, lastSent),
        whole: wholeOf(series, request.logarithmic?.includes(reference) === true),
        curves: moving && !isFront ? [] : curvesOn(reference, request, outcomes, across),
      };
    }
  const graphs = graphsOf(workings, outcomes, request, lastSent);
  for (const reference of lastSent.lines.keys())
    if (!(reference in drawn) && !(reference in graphs)) lastSent.lines.delete(reference);
  return {
    runId: evaluator.run.id,
    entryIds: workings.entries.map(({ id }) => id),
    changed: changedSince(lastSent.outcomes, outcomes, workings),
    traces: drawn,
    residuals: across === null ? {} : residualsOf(workings, traces, outcomes, request, across),
    graphs,
  };
}

/** The entries that are seen, and those that are drawn; null where all are wanted. */
function wantedOf(
  { visible, asksForAll, workings: { entries }, graphs, traces }: RenderRequest,
  isFront: boolean,
): ReadonlySet<string> | null {
  // What was sent before is what stands on the screen of all that is not visible.
  if (visible === null || asksForAll) return null;
  const isDrawn = (entry: Entry) =>
    entry.kind === 'region' ||
    entryRef(entry.id) in graphs ||
    ('of' in entry &&
      traces.includes(entry.of) &&
      (isFront ? drawsCurve(entry) : isFit(entry) && entry.showResiduals));
  return new Set([
    ...visible.everywhere,
    ...(isFront ? visible.inFront : []),
    ...entries.filter(isDrawn).map(({ id }) => id),
  ]);
}

function wholeOf(series: Series, isLogarithmic: boolean): RunTrace['whole'] {
  const { low, high } = pyramidOf(series).extremes(series.values, 0, series.values.length);
  if (!(low <= high)) return null;
  return isLogarithmic ? { low, high, positive: positiveOf(series) } : { low, high };
}

/** By series, since a long one takes a while. */
const positives = new WeakMap<Series, NonNullable<NonNullable<RunTrace['whole']>['positive']>>();

function positiveOf(series: Series) {
  const known = positives.get(series);
  if (known !== undefined) return known;
  let least = Infinity;
  let others = 0;
  for (const value of series.values)
    if (value <= 0) others++;
    else if (value < least) least = value;
  const found = { least: least < Infinity ? least : null, others };
  positives.set(series, found);
  return found;
}

const noLine: ThinLine = { x: new Float64Array(0), y: new Float64Array(0), isBand: false };

const isAlong = (entry: Entry, horizontal: SeriesRef): boolean =>
  ('against' in entry ? entry.against : 't') === horizontal;

function curvesOn(
  reference: SeriesRef,
  { workings: { entries }, horizontal, sight }: RenderRequest,
  outcomes: Map<string, Outcome>,
  across: Across,
): FittedCurve[] {
  const seen = inRun(sight, across);
  const found = entries.flatMap((entry): FittedCurve[] => {
    if (!('of' in entry) || entry.of !== reference) return [];
    if (!isAlong(entry, horizontal)) return [];
    const outcome = outcomes.get(entry.id);
    const curve = outcome?.kind === 'results' ? (outcome.fitted?.curve ?? outcome.curve) : undefined;
    if (curve === undefined) return [];
    const fitted = outcome?.kind === 'results' ? outcome.fitted : null;
    return fitted !== null && isFit(entry)
      ? [
          seen.isLogarithmic === true ? curveAlong(fitted, seen) : curve,
          ...attempt(
            () => besideFit(fitted, entry, seen),
            () => [],
          ),
        ]
      : [curve];
  });
  return found.map((curve) => ({ ...curve, x: onAxis(curve.x, across) }));
}

function residualsOf(
  { entries }: WorkingsDocument,
  traces: readonly SeriesRef[],
  outcomes: Map<string, Outcome>,
  { width, sight, horizontal }: RenderRequest,
  across: Across,
): Record<string, RunTrace> {
  const found: Record<string, RunTrace> = {};
  for (const entry of entries.filter(isFit)) {
    if (!entry.showResiduals || !traces.includes(entry.of) || !isAlong(entry, horizontal)) continue;
    const outcome = outcomes.get(entry.id);
    if (outcome?.kind !== 'results' || outcome.fitted === null) continue;
    const { fitted } = outcome;
    const residuals = attempt(
      () => fitted.residuals(),
      () => null,
    );
    if (residuals === null) continue;
    const [x, y] = [onAxis(residuals.x, across), residuals.y];
    found[entry.id] = {
      symbol: 'residuals',
      quantity: '',
      unit: intervalUnit(fitted.unit),
      // Against something else than time, nothing joins one residual with the next.
      line: { ...thinResiduals(x, y, width, sight), ...(horizontal === 't' ? {} : { isDots: true }) },
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
  lastOutcomes: Map<string, Outcome>,
  outcomes: Map<string, Outcome>,
  { entries }: WorkingsDocument,
): Record<string, ShownOutcome> {
  const changed: Record<string, ShownOutcome> = {};
  for (const [id, outcome] of outcomes) {
    const before = lastOutcomes.get(id);
    if (before === outcome) continue;
    lastOutcomes.set(id, outcome);
    if (before?.kind === 'refused' && outcome.kind === 'refused' && before.sentence === outcome.sentence)
      continue;
    changed[id] = attempt(
      () => shownOutcome(outcome),
      (error) => shownOutcome(faultOutcome(error)),
    );
  }
  const ids = new Set(entries.map(({ id }) => id));
  for (const id of lastOutcomes.keys()) if (!ids.has(id)) lastOutcomes.delete(id);
  return changed;
}
