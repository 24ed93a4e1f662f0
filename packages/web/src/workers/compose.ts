import { type WorkingsDocument } from '@heuristor/contracts';
import { type SeriesRef, type Unit, canConvert, conversionFactor, sameUnit } from '@heuristor/core';
import { type CompleteRun, type CompleteTrace } from './knownLines';
import { type Axis, type Bars, type Extent, type Line, type Sight } from './protocol';

export interface DrawnRun extends Line {
  runId: string;
}

export interface DrawnLine extends DrawnRun {
  isBand: boolean;
  pinned?: Line;
  strays?: Line;
  bars?: Bars;
  isDots?: boolean;
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
  /** The line that is to be followed here. */
  target?: Line;
  low: number;
  high: number;
}

/** A line that is to be followed, where it belongs. */
export interface ShownTarget extends Line {
  reference: SeriesRef;
  symbol: string;
  unit: Unit;
}

export interface Frame {
  horizontal: Axis;
  /** Stretch that is drawn, and the one that would show all data. */
  sight: Sight;
  whole: Sight;
  /** Whether the traces show their zero. */
  withZero: boolean;
  target: ShownTarget | null;
  /** Finest step of the horizontal axis, for keys that move by one reading. */
  step: number;
}

const padding = 0.06;

/** The axis that all runs share: its name, its whole reach and what is looked at. */
export function frameOf(
  extents: readonly Extent[],
  isTime: boolean,
  sight: Sight | null,
  withZero = false,
  target: ShownTarget | null = null,
): Frame {
  const shared = extents.flatMap(({ unit, low: own, high: top, step }) => {
    const factor = factorBetween(unit, extents[0].unit);
    return factor === null
      ? []
      : [{ ends: [own * factor, top * factor], step: step === null ? [] : [step * factor] }];
  });
  const shownTarget = isTime ? target : null;
  const lineEnds = shownTarget === null ? [] : [shownTarget.x[0], shownTarget.x[shownTarget.x.length - 1]];
  const ends = [...shared.flatMap((extent) => extent.ends).filter(Number.isFinite), ...lineEnds];
  // Time has no zero that matters.
  const zero = withZero && !isTime && ends.length > 0 ? [0] : [];
  const low = Math.min(...ends, ...zero);
  const high = Math.max(...ends, ...zero);
  // A run of time fills its panel; points stand inside of it.
  const [first] = extents;
  const isTimed = isTime && first?.unit.length !== 0;
  const whole = framed(low, high, isTimed ? 0 : padding);
  const shown = sight ?? whole;
  const step = Math.min(...shared.flatMap((extent) => extent.step));
  return {
    horizontal:
      first === undefined
        ? { symbol: 't', unit: [{ atom: 's', power: 1 }], quantity: 'time' }
        : { symbol: first.symbol, unit: first.unit, quantity: first.quantity },
    sight: shown,
    whole,
    withZero,
    target: shownTarget,
    step: Number.isFinite(step) ? step : (shown.to - shown.from) / 200,
  };
}

/**
 * The panels of the stack, from the top: each trace, and under it the residuals that are wanted of fits to it.
 * @param before the panels that stand; what has not changed stays the same object, so that nobody draws it again
 */
export function composeTraces(
  rendered: readonly CompleteRun[],
  { entries }: WorkingsDocument,
  references: readonly SeriesRef[],
  frame: Pick<Frame, 'sight' | 'withZero'> & Partial<Pick<Frame, 'target'>>,
  before: readonly DrawnTrace[] = [],
): DrawnTrace[] {
  const traces: DrawnTrace[] = [];
  const add = (trace: DrawnTrace) =>
    traces.push(
      sameWhere(
        before.find(({ key }) => key === trace.key),
        scaled(trace, frame),
      ),
    );
  for (const reference of references) {
    const trace = targeted(
      gathered(
        reference,
        reference,
        rendered.map(({ runId, traces: own }) => [runId, own[reference]]),
      ),
      reference,
      frame.target ?? null,
    );
    if (trace === null) continue;
    add(trace);
    for (const entry of entries) {
      if (entry.kind !== 'fit' || entry.of !== reference || !entry.showResiduals) continue;
      const residuals = gathered(
        `residuals:${entry.id}`,
        null,
        rendered.map(({ runId, residuals: own }) => [runId, own[entry.id]]),
      );
      if (residuals !== null) add({ ...residuals, symbol: `residuals of ${trace.symbol}` });
    }
  }
  return traces;
}

/** Lines of several runs on one panel, brought into the unit of the first. */
function gathered(
  key: string,
  reference: SeriesRef | null,
  parts: readonly [runId: string, part: CompleteTrace | undefined][],
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
    const { isBand, pinned, strays, bars, isDots } = part.line;
    trace.lines.push({
      runId,
      isBand,
      ...(pinned === undefined ? {} : { pinned }),
      ...(isDots === undefined ? {} : { isDots }),
      ...(bars === undefined
        ? {}
        : { bars: { ...scaledLine(bars, factor), half: bars.half.map((half) => Math.abs(factor) * half) } }),
      ...(strays === undefined ? {} : { strays: scaledLine(strays, factor) }),
      ...scaledLine(part.line, factor),
    });
    for (const curve of part.curves) trace.curves.push({ runId, ...scaledLine(curve, factor) });
  }
  return trace;
}

/** A panel with the line that is to be followed there; one that nothing is drawn on yet is there for the line alone. */
function targeted(
  trace: DrawnTrace | null,
  reference: SeriesRef,
  target: ShownTarget | null,
): DrawnTrace | null {
  if (target?.reference !== reference) return trace;
  const { symbol, unit, x, y } = target;
  const factor = trace === null ? 1 : factorBetween(unit, trace.unit);
  if (factor === null) return trace;
  const own = trace ?? {
    key: reference,
    reference,
    symbol,
    unit,
    lines: [],
    curves: [],
    others: [],
    low: 0,
    high: 1,
  };
  return { ...own, target: scaledLine({ x, y }, factor) };
}

function factorBetween(from: Unit, to: Unit): number | null {
  if (sameUnit(from, to)) return 1;
  return canConvert(from, to) ? conversionFactor(from, to) : null;
}

/** What lines were last brought into another unit, so that a line that stands stays the same. */
const broughtInto = new WeakMap<Float64Array, { factor: number; y: Float64Array }>();

function scaledLine({ x, y }: Line, factor: number): Line {
  if (factor === 1) return { x, y };
  let scaled = broughtInto.get(y);
  if (scaled?.factor !== factor)
    broughtInto.set(y, (scaled = { factor, y: y.map((value) => value * factor) }));
  return { x, y: scaled.y };
}

/** A panel with what it shares with the one that stood before. */
function sameWhere(before: DrawnTrace | undefined, now: DrawnTrace): DrawnTrace {
  if (before === undefined) return now;
  const isSame =
    before.lines.length === now.lines.length &&
    now.lines.every((line, i) => {
      const other = before.lines[i];
      return line.runId === other.runId && line.x === other.x && line.y === other.y;
    });
  return {
    ...now,
    unit: sameUnit(before.unit, now.unit) ? before.unit : now.unit,
    lines: isSame ? before.lines : now.lines,
    curves: before.curves.length === 0 && now.curves.length === 0 ? before.curves : now.curves,
  };
}

function framed(low: number, high: number, pad: number): Sight {
  if (!(high >= low)) return { from: 0, to: 10 };
  if (high === low) return { from: low - 0.5, to: high + 0.5 };
  return { from: low - pad * (high - low), to: high + pad * (high - low) };
}

/** Scales a trace to what is in sight, with a little air; zero stays where it falls. */
function scaled(
  trace: DrawnTrace,
  { sight: { from, to }, withZero }: Pick<Frame, 'sight' | 'withZero'>,
): DrawnTrace {
  let low = withZero ? 0 : Infinity;
  let high = withZero ? 0 : -Infinity;
  for (const { bars } of trace.lines)
    bars?.y.forEach((y, i) => {
      if (!(bars.x[i] >= from && bars.x[i] <= to)) return;
      low = Math.min(low, y - bars.half[i]);
      high = Math.max(high, y + bars.half[i]);
    });
  const targets = trace.target === undefined ? [] : [trace.target];
  for (const { x, y } of [...trace.lines, ...trace.curves, ...targets])
    for (let i = 0; i < y.length; i++) {
      if (!(x[i] >= from && x[i] <= to)) continue;
      if (y[i] < low) low = y[i];
      if (y[i] > high) high = y[i];
    }
  const range = framed(low, high, padding);
  return { ...trace, low: high >= low ? range.from : 0, high: high >= low ? range.to : 1 };
}
