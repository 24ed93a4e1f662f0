import { type WorkingsDocument } from '@heuristor/contracts';
import { type SeriesRef, type Unit, canConvert, conversionFactor, sameUnit } from '@heuristor/core';
import { type Axis, type Extent, type Line, type RenderedRun, type RunTrace, type Sight } from './protocol';

export interface DrawnRun extends Line {
  runId: string;
}

export interface DrawnLine extends DrawnRun {
  isBand: boolean;
}

/** One panel of the stack, with the lines of all runs in one unit. */
export interface DrawnTrace {
  key: string;
  /** What the trace shows; null for residuals of a fit. */
  reference: SeriesRef | null;
  symbol: string;
  unit: Unit;
  lines: DrawnLine[];
  curves: DrawnRun[];
  /** Runs that measure something else under this name, and are not drawn. */
  others: string[];
  low: number;
  high: number;
}

export interface Frame {
  horizontal: Axis;
  /** Stretch that is drawn, and the one that would show all data. */
  sight: Sight;
  whole: Sight;
  /** Finest step of the horizontal axis, for keys that move by one reading. */
  step: number;
}

const padding = 0.06;

/** The axis that all runs share: its name, its whole reach and what is looked at. */
export function frameOf(extents: readonly Extent[], isTime: boolean, sight: Sight | null): Frame {
  const shared = extents.flatMap(({ unit, low: own, high: top, step }) => {
    const factor = factorBetween(unit, extents[0].unit);
    return factor === null
      ? []
      : [{ ends: [own * factor, top * factor], step: step === null ? [] : [step * factor] }];
  });
  const ends = shared.flatMap((extent) => extent.ends);
  const low = Math.min(...ends);
  const high = Math.max(...ends);
  const whole = framed(low, high, isTime ? 0 : padding);
  const shown = sight ?? whole;
  const step = Math.min(...shared.flatMap((extent) => extent.step));
  const [first] = extents;
  return {
    horizontal:
      first === undefined
        ? { symbol: 't', unit: [{ atom: 's', power: 1 }], quantity: 'time' }
        : { symbol: first.symbol, unit: first.unit, quantity: first.quantity },
    sight: shown,
    whole,
    step: Number.isFinite(step) ? step : (shown.to - shown.from) / 200,
  };
}

/** The panels of the stack, from the top: each trace, and under it the residuals that are wanted of fits to it. */
export function composeTraces(
  rendered: readonly RenderedRun[],
  { entries }: WorkingsDocument,
  references: readonly SeriesRef[],
  sight: Sight,
): DrawnTrace[] {
  const traces: DrawnTrace[] = [];
  for (const reference of references) {
    const trace = gathered(
      reference,
      reference,
      rendered.map(({ runId, traces: own }) => [runId, own[reference]]),
    );
    if (trace === null) continue;
    traces.push(scaled(trace, sight));
    for (const entry of entries) {
      if (entry.kind !== 'fit' || entry.of !== reference || !entry.showResiduals) continue;
      const residuals = gathered(
        `residuals:${entry.id}`,
        null,
        rendered.map(({ runId, residuals: own }) => [runId, own[entry.id]]),
      );
      if (residuals !== null)
        traces.push(scaled({ ...residuals, symbol: `residuals of ${trace.symbol}` }, sight));
    }
  }
  return traces;
}

/** Lines of several runs on one panel, brought into the unit of the first. */
function gathered(
  key: string,
  reference: SeriesRef | null,
  parts: readonly [runId: string, part: RunTrace | undefined][],
): DrawnTrace | null {
  let trace: DrawnTrace | null = null;
  for (const [runId, part] of parts) {
    if (part === undefined) continue;
    trace ??= {
      key,
      reference,
      symbol: part.symbol,
      unit: part.unit,
      lines: [],
      curves: [],
      others: [],
      low: 0,
      high: 1,
    };
    const factor = factorBetween(part.unit, trace.unit);
    if (factor === null) {
      trace.others.push(runId);
      continue;
    }
    trace.lines.push({ runId, isBand: part.line.isBand, ...scaledLine(part.line, factor) });
    for (const curve of part.curves) trace.curves.push({ runId, ...scaledLine(curve, factor) });
  }
  return trace;
}

function factorBetween(from: Unit, to: Unit): number | null {
  if (sameUnit(from, to)) return 1;
  return canConvert(from, to) ? conversionFactor(from, to) : null;
}

const scaledLine = ({ x, y }: Line, factor: number): Line => ({
  x,
  y: factor === 1 ? y : y.map((value) => value * factor),
});

function framed(low: number, high: number, pad: number): Sight {
  if (!(high >= low)) return { from: 0, to: 10 };
  if (high === low) return { from: low - 0.5, to: high + 0.5 };
  return { from: low - pad * (high - low), to: high + pad * (high - low) };
}

/** Scales a trace to what is in sight, with a little air; zero stays where it falls. */
function scaled(trace: DrawnTrace, { from, to }: Sight): DrawnTrace {
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
