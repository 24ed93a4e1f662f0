import {
  type Evaluator,
  type Outcome,
  Refusal,
  type Series,
  type SeriesRef,
  channelRef,
  indexAfter,
  indexAtOrAfter,
  orRefusal,
  thinForDrawing,
  valuesAtTimesOf,
} from '@heuristor/core';
import {
  type DrawnRun,
  type DrawnTrace,
  type RenderRequest,
  type Rendered,
  type ShownOutcome,
} from './protocol';

const padding = 0.06;

/** Evaluates the workings over the runs and makes the lines to draw for one stretch of the horizontal axis. */
export function render(evaluators: Evaluator[], { workings, viewport, width }: RenderRequest): Rendered {
  const evaluations = evaluators.map((evaluator) => ({ evaluator, ...evaluator.evaluate(workings) }));
  const seriesOf = (evaluator: Evaluator, reference: SeriesRef) =>
    orRefusal(() => evaluator.series(workings, reference));

  const horizontals = new Map<Evaluator, Series>();
  let low = Infinity;
  let high = -Infinity;
  let step = Infinity;
  for (const evaluator of evaluators) {
    const horizontal = seriesOf(evaluator, workings.horizontal);
    if (horizontal instanceof Refusal) continue;
    horizontals.set(evaluator, horizontal);
    for (const value of ends(horizontal)) {
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
    if (workings.horizontal === 't' && horizontal.interval !== null)
      step = Math.min(step, horizontal.interval);
  }
  const whole = framed(low, high, workings.horizontal === 't' ? 0 : padding);
  const shown = viewport ?? whole;

  const references: SeriesRef[] =
    workings.traces.length > 0 ? workings.traces : defaultTraces(evaluators, workings.horizontal);
  const traces: DrawnTrace[] = [];
  for (const reference of references) {
    const trace = emptyTrace(reference, reference);
    for (const { evaluator, runId, outcomes } of evaluations) {
      const series = seriesOf(evaluator, reference);
      const horizontal = horizontals.get(evaluator);
      if (series instanceof Refusal || horizontal === undefined) continue;
      Object.assign(trace, { symbol: series.symbol, quantity: series.quantity, unit: series.unit });
      trace.lines.push({ runId, ...drawn(series, horizontal, workings.horizontal, shown, width) });
      for (const line of workings.lines) {
        if (line.kind !== 'fit' || line.of !== reference || line.against !== workings.horizontal) continue;
        const outcome = outcomes.get(line.id);
        if (outcome?.kind === 'results' && outcome.fitted !== null)
          trace.curves.push({ runId, ...outcome.fitted.curve });
      }
    }
    if (trace.lines.length > 0) traces.push(scaled(trace, shown));
    for (const line of workings.lines) {
      if (line.kind !== 'fit' || line.of !== reference || !line.showResiduals) continue;
      const residuals = emptyTrace(`residuals:${line.id}`, null);
      for (const { runId, outcomes } of evaluations) {
        const outcome = outcomes.get(line.id);
        if (outcome?.kind !== 'results' || outcome.fitted === null) continue;
        const { x, y } = outcome.fitted.residuals;
        residuals.lines.push({ runId, ...thinForDrawing(x, y, 0, x.length, Math.max(width, 100)) });
      }
      Object.assign(residuals, {
        symbol: `residuals of ${trace.symbol}`,
        quantity: trace.quantity,
        unit: trace.unit,
      });
      if (residuals.lines.length > 0) traces.push(scaled(residuals, shown));
    }
  }

  const [example] = horizontals.values();
  return {
    outcomes: Object.fromEntries(
      evaluations.map(({ runId, outcomes }) => [
        runId,
        Object.fromEntries([...outcomes].map(([id, outcome]) => [id, shownOutcome(outcome)])),
      ]),
    ),
    traces,
    horizontal: {
      symbol: example?.symbol ?? 't',
      unit: example?.unit ?? [{ atom: 's', power: 1 }],
      quantity: example?.quantity ?? 'time',
    },
    viewport: shown,
    whole,
    step: Number.isFinite(step) ? step : (shown.to - shown.from) / 200,
  };
}

function shownOutcome(outcome: Outcome): ShownOutcome {
  switch (outcome.kind) {
    case 'refused':
      return outcome;
    case 'region':
      return { kind: 'region' };
    case 'series': {
      const { symbol, quantity, unit, interval } = outcome.series;
      return { kind: 'series', symbol, quantity, unit, interval };
    }
    case 'results': {
      const { results, notes, fitted } = outcome;
      return {
        kind: 'results',
        results,
        notes,
        correlations: fitted?.correlations ?? null,
        count: fitted?.count ?? null,
      };
    }
  }
}

const emptyTrace = (key: string, reference: SeriesRef | null): DrawnTrace => ({
  key,
  reference,
  symbol: '',
  quantity: '',
  unit: [],
  lines: [],
  curves: [],
  low: 0,
  high: 1,
});

function defaultTraces(evaluators: Evaluator[], horizontal: SeriesRef): SeriesRef[] {
  const keys = new Set(evaluators.flatMap(({ run }) => run.channels.map(({ key }) => key)));
  return [...keys].map(channelRef).filter((reference) => reference !== horizontal);
}

function ends({ values }: Series): [number, number] {
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < values.length; i++) {
    if (values[i] < low) low = values[i];
    if (values[i] > high) high = values[i];
  }
  return [low, high];
}

function framed(low: number, high: number, pad: number): { from: number; to: number } {
  if (!(high >= low)) return { from: 0, to: 10 };
  if (high === low) return { from: low - 0.5, to: high + 0.5 };
  return { from: low - pad * (high - low), to: high + pad * (high - low) };
}

function drawn(
  series: Series,
  horizontal: Series,
  reference: SeriesRef,
  { from, to }: { from: number; to: number },
  width: number,
): Omit<DrawnRun, 'runId'> {
  if (reference === 't') {
    const first = Math.max(indexAtOrAfter(series.times, from) - 1, 0);
    const end = Math.min(indexAfter(series.times, to) + 1, series.times.length);
    return thinForDrawing(series.times, series.values, first, end, Math.max(width, 100));
  }
  const x = valuesAtTimesOf(horizontal, series);
  return thinForDrawing(x, series.values, 0, x.length, 4000);
}

/** Scales a trace to what is in sight, with a little air; zero stays where it falls. */
function scaled(trace: DrawnTrace, { from, to }: { from: number; to: number }): DrawnTrace {
  let low = Infinity;
  let high = -Infinity;
  for (const { x, y } of [...trace.lines, ...trace.curves])
    for (let i = 0; i < y.length; i++) {
      if (!(x[i] >= from && x[i] <= to)) continue;
      if (y[i] < low) low = y[i];
      if (y[i] > high) high = y[i];
    }
  const range = framed(low, high, padding);
  return { ...trace, low: high >= low ? range.from : 0, high: high >= low ? range.to : 1 };
}
