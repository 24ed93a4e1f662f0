import { type Panel, type WorkingsDocument } from '@heuristor/contracts';
import { type SeriesRef, type Unit, conversionBetween, isFit, sameUnit } from '@heuristor/core';
import { type CompleteRun, type CompleteTrace } from './knownLines';
import { type Extent, type Line, type Sight } from '../workers/protocol';
import {
  type DrawnAxis,
  type Side,
  type DrawnTrace,
  type ShownTarget,
  type Frame,
  type ZeroShown,
} from './drawn';
import { marked, usable } from './axes/axisScale';
import { type ScalingFrame, calmed, framed, isZeroShown, padding, scaled } from './axes/scaling';
import { bent } from './bent';

/** How an axis that runs share is looked at. */
export interface Looked {
  /** Null frames all data. */
  sight?: Sight | null;
  withZero?: ZeroShown;
  target?: ShownTarget | null;
  scales?: Frame['scales'];
  reach?: Frame['reach'];
  isGrowing?: boolean;
  /** Where a run that is recorded will end. */
  expected?: number | null;
  /** What stood before, from which a growing axis goes on. */
  before?: Frame | null;
  /** Whether equal ratios are equally long on it. */
  isLogarithmic?: boolean;
}

/** The axis that all runs share: its name, its whole reach and what is looked at. */
export function frameOf(
  extents: readonly Extent[],
  isTime: boolean,
  {
    sight = null,
    withZero = false,
    target = null,
    scales = {},
    reach = 'shown',
    isGrowing = false,
    expected = null,
    before = null,
    isLogarithmic = false,
  }: Looked = {},
): Frame {
  const led = isTime ? (extents.at(0) ?? null) : leading(extents);
  const shared = extents.flatMap(({ unit, low: own, high: top, leastPositive, notPositive, step }) => {
    const conversion = led === null ? null : conversionBetween(unit, led.unit);
    if (conversion === null) return [];
    const { factor, offset } = conversion;
    // What is not above zero stands on no logarithmic axis.
    const isCut = isLogarithmic && own * factor + offset <= 0;
    return [
      {
        notPositive: isCut ? notPositive : 0,
        ends: (isCut ? [leastPositive ?? NaN, leastPositive === null ? NaN : top] : [own, top]).map(
          (end) => end * factor + offset,
        ),
        step: step === null ? [] : [Math.abs(step * factor)],
      },
    ];
  });
  const shownTarget = isTime ? target : null;
  const lineEnds = shownTarget === null ? [] : [shownTarget.x[0], shownTarget.x[shownTarget.x.length - 1]];
  const ends = [...shared.flatMap((extent) => extent.ends).filter(Number.isFinite), ...lineEnds];
  // Time has no zero that matters.
  const hasZero = !isTime && !isLogarithmic && ends.length > 0;
  const zero = hasZero && isZeroShown(withZero, Math.min(...ends), Math.max(...ends)) ? [0] : [];
  const isExpected = isGrowing && isTime && expected !== null && ends.length > 0;
  const low = Math.min(...ends, ...zero);
  const high = Math.max(...ends, ...zero, ...(isExpected ? [expected] : []));
  // A run of time fills its panel; points stand inside of it.
  const isTimed = isTime && led?.unit.length !== 0;
  const wanted = framed(low, high, isTimed ? 0 : padding, isLogarithmic);
  const stood = before !== null && before.isGrowing ? before.whole : null;
  const whole = isGrowing && !isExpected ? calmed(stood, wanted) : wanted;
  const set = usable(sight, isLogarithmic);
  const shown = set === null ? whole : { from: set.from, to: set.to, ...marked(isLogarithmic) };
  const step = Math.min(...shared.flatMap((extent) => extent.step));
  return {
    horizontal:
      led === null
        ? { symbol: 't', unit: [{ atom: 's', power: 1 }], quantity: 'time' }
        : { symbol: led.symbol, unit: led.unit, quantity: led.quantity },
    sight: shown,
    whole,
    notPositive: shared.reduce((sum, extent) => sum + extent.notPositive, 0),
    withZero,
    target: shownTarget,
    scales,
    reach,
    isGrowing,
    step: Number.isFinite(step) ? step : (shown.to - shown.from) / 200,
  };
}

/**
 * The panels of the stack, from the top: each trace, and under it the residuals that are wanted of fits to it.
 * @param before the panels that stand; what has not changed stays the same object, so that nobody draws it again
 */
export function composeTraces(
  rendered: readonly CompleteRun[],
  { entries }: Pick<WorkingsDocument, 'entries'>,
  panels: readonly Panel[],
  frame: ScalingFrame & Partial<Pick<Frame, 'target'>>,
  before: readonly DrawnTrace[] = [],
): DrawnTrace[] {
  const traces: DrawnTrace[] = [];
  const add = (trace: DrawnTrace) => {
    const standing = before.find(({ key }) => key === trace.key);
    traces.push(sameWhere(standing, scaled(trace, frame, standing)));
  };
  for (const panel of panels) {
    const drawnIn = rendered.filter(({ runId }) => !panel.without.includes(runId));
    const trace = drawnTrace(panel, drawnIn, frame);
    if (trace === null) continue;
    add(trace);
    for (const entry of entries) {
      if (!isFit(entry) || !panel.series.includes(entry.of) || !entry.showResiduals) continue;
      const residuals = emptyTrace(`residuals:${entry.id}`, null, Math.min(panel.weight, 1));
      gather(residuals, 0, residualsOf(entry.id, drawnIn));
      const of = trace.quantities.find(({ reference }) => reference === entry.of)?.symbol ?? '';
      const isNew = !traces.some(({ key }) => key === residuals.key);
      if (residuals.lines.length > 0 && isNew) add({ ...residuals, symbol: `residuals of ${of}` });
    }
  }
  return traces;
}

type Part = readonly [runId: string, part: CompleteTrace | undefined];

const residualsOf = (entryId: string, rendered: readonly CompleteRun[]): Part[] =>
  rendered.map(({ runId, residuals }) => [runId, residuals[entryId]]);

const emptyTrace = (key: string, reference: SeriesRef | null, weight: number): DrawnTrace => ({
  key,
  reference,
  symbol: '',
  unit: [],
  quantities: [],
  right: null,
  lacking: [],
  weight,
  lines: [],
  wholes: [],
  curves: [],
  others: [],
  low: 0,
  high: 1,
});

/** A trace with all its quantities, and the line that is to be followed there; null where nothing of it is known. */
function drawnTrace(
  { id, series, weight, logarithmic = [], look, legend }: Panel,
  rendered: readonly CompleteRun[],
  { sight, target = null }: Pick<Frame, 'sight'> & Partial<Pick<Frame, 'target'>>,
): DrawnTrace | null {
  const trace: DrawnTrace = {
    ...emptyTrace(id, series[0], weight),
    ...marked(logarithmic.includes('left')),
    ...(look === undefined ? {} : { look }),
    ...(legend === undefined ? {} : { legend }),
  };
  for (const [place, reference] of series.entries()) {
    const parts = rendered.map(({ runId, traces }): Part => [runId, traces[reference]]);
    const first = leading(parts.flatMap(([, part]) => part ?? [])) ?? lineFor(target, reference);
    if (first === null) continue;
    const side = sideFor(trace, first, logarithmic.includes('right'));
    if (side === null) {
      trace.lacking.push(first.symbol);
      continue;
    }
    const quantity = 'quantity' in first ? first.quantity : '';
    trace.quantities.push({ reference, symbol: first.symbol, quantity, side });
    gather(trace, place, parts, side, sight);
    if (target?.reference !== reference || side !== 'left') continue;
    const conversion = conversionBetween(target.unit, trace.unit);
    if (conversion !== null) trace.target = scaledLine(target, conversion);
  }
  return trace.quantities.length === 0 ? null : trace;
}

/** A line that is to be followed is there before anything is drawn beside it. */
const lineFor = (target: ShownTarget | null, reference: SeriesRef) =>
  target?.reference === reference ? target : null;

/** The axis on which a quantity is read, with its symbol on it; null where both are taken by other units. */
function sideFor(
  trace: DrawnTrace,
  { symbol, unit }: { symbol: string; unit: Unit },
  isLogarithmic: boolean,
): Side | null {
  const isFirst = trace.quantities.length === 0;
  if (isFirst || conversionBetween(unit, trace.unit) !== null) {
    if (isFirst) trace.unit = unit;
    trace.symbol = isFirst ? symbol : `${trace.symbol}, ${symbol}`;
    return 'left';
  }
  if (trace.right === null) {
    trace.right = { symbol, unit, low: 0, high: 1, ...marked(isLogarithmic) };
    return 'right';
  }
  if (conversionBetween(unit, trace.right.unit) === null) return null;
  trace.right.symbol += `, ${symbol}`;
  return 'right';
}

/** Adds the lines of several runs to a panel, brought into the unit of their axis. */
function gather(
  trace: DrawnTrace,
  place: number,
  parts: readonly Part[],
  side: Side = 'left',
  sight: Sight | null = null,
): void {
  const isBent = sight?.isLogarithmic === true || axisOf(trace, side)?.isLogarithmic === true;
  const led = leading(parts.flatMap(([, part]) => part ?? []));
  if (trace.reference === null && led !== null) trace.unit = led.unit;
  for (const [runId, part] of parts) {
    if (part === undefined) continue;
    const unit = side === 'right' && trace.right !== null ? trace.right.unit : trace.unit;
    const conversion = conversionBetween(part.unit, unit);
    if (conversion === null || part.isElsewhere === true) {
      trace.others.push(runId);
      continue;
    }
    const { factor, offset } = conversion;
    const { isBand, pinned, strays, aside, bars, isDots } = part.line;
    if (part.whole !== null) {
      const { low, high, positive } = part.whole;
      const ends = [low, high].map((end) => end * factor + offset);
      const whole = { side, low: Math.min(...ends), high: Math.max(...ends) };
      const isCut = positive !== undefined && whole.low <= 0;
      const least = positive?.least ?? null;
      trace.wholes.push({
        ...whole,
        ...(isCut
          ? { positive: { least: least === null ? null : least * factor + offset, others: positive.others } }
          : {}),
      });
      if (isCut) trace.notPositive = (trace.notPositive ?? 0) + positive.others;
    }
    trace.lines.push({
      runId,
      side,
      place,
      isBand,
      ...(pinned === undefined ? {} : { pinned }),
      ...(isDots === undefined ? {} : { isDots }),
      ...(bars === undefined
        ? {}
        : {
            bars: { ...scaledLine(bars, conversion), half: bars.half.map((half) => Math.abs(factor) * half) },
          }),
      ...(strays === undefined ? {} : { strays: scaledLine(strays, conversion) }),
      ...(aside === undefined ? {} : { aside: scaledLine(aside, conversion) }),
      ...scaledLine(part.line, conversion),
    });
    for (const curve of part.curves) {
      const look = curve.look === undefined ? {} : { look: curve.look };
      const line = scaledLine(curve, conversion);
      trace.curves.push({ runId, side, ...look, ...(isBent ? bent(line) : line) });
    }
  }
}

/**
 * What the unit of an axis is taken from: the newest run that measures the same as the oldest, since its unit is what was chosen
 * last; null where there is none.
 */
function leading<T extends { unit: Unit; isElsewhere?: true }>(parts: readonly T[]): T | null {
  const own = parts.filter(({ isElsewhere }) => isElsewhere !== true);
  return own.findLast(({ unit }) => conversionBetween(unit, own[0].unit) !== null) ?? null;
}

const axisOf = (trace: DrawnTrace, side: Side): DrawnAxis | null => (side === 'right' ? trace.right : trace);

type Conversion = NonNullable<ReturnType<typeof conversionBetween>>;

/** What lines were last brought into another unit, so that a line that stands stays the same. */
const broughtInto = new WeakMap<Float64Array, Conversion & { y: Float64Array }>();

function scaledLine({ x, y }: Line, { factor, offset }: Conversion): Line {
  if (factor === 1 && offset === 0) return { x, y };
  let scaled = broughtInto.get(y);
  if (scaled?.factor !== factor || scaled.offset !== offset)
    broughtInto.set(y, (scaled = { factor, offset, y: y.map((value) => value * factor + offset) }));
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
