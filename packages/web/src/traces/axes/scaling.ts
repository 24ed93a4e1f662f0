import { type DrawnAxis, type DrawnTrace, type Frame, type Side, type ZeroShown } from '../drawn';
import { type Sight } from '../../workers/protocol';
import { asLengths, counted, ofAxis, usable, valueAtShare } from './axisScale';

/** Air about the data, as a share of their reach. */
export const padding = 0.06;
/** While readings come: room that is made at once for those after them, as a share of all that is seen. */
const headroom = 0.25;
/** What takes less than this share of its axis is given a new one. */
const leastShare = 0.25;

/** An interval with air about it; of a single value, an interval that holds it. */
export function framed(low: number, high: number, pad: number, isLogarithmic = false): Sight {
  if (isLogarithmic) return framedLogarithm(low, high, pad);
  if (!(high >= low)) return { from: 0, to: 10 };
  if (high === low) return { from: low - 0.5, to: high + 0.5 };
  return { from: low - pad * (high - low), to: high + pad * (high - low) };
}

/** The same of a logarithmic axis, of values above zero. */
function framedLogarithm(low: number, high: number, pad: number): Sight {
  const isLogarithmic = true;
  if (!(high >= low && low > 0)) return { from: 1, to: 10, isLogarithmic };
  if (high === low) return { from: low / 2, to: high * 2, isLogarithmic };
  const ends = { from: low, to: high, isLogarithmic } as const;
  return { from: valueAtShare(-pad, ends), to: valueAtShare(1 + pad, ends), isLogarithmic };
}

/**
 * The interval that is shown while readings come: the one before as long as it will do, and more than is needed when it no
 * longer does, so that an axis moves now and then and not with every frame.
 */
export function calmed(before: Sight | null, wanted: Sight): Sight {
  if (before === null || before.isLogarithmic !== wanted.isLogarithmic) return wanted;
  if (wanted.isLogarithmic === true) {
    return { ...asLengths(before, (ends) => calmed(ends, counted(wanted))), isLogarithmic: true };
  }
  const span = before.to - before.from;
  const isWithin = wanted.from >= before.from && wanted.to <= before.to;
  if (isWithin) return wanted.to - wanted.from < leastShare * span ? wanted : before;
  const [from, to] = [Math.min(wanted.from, before.from), Math.max(wanted.to, before.to)];
  const room = headroom * (to - from);
  return {
    from: wanted.from < before.from ? wanted.from - room : before.from,
    to: wanted.to > before.to ? wanted.to + room : before.to,
  };
}

/** Zero is near where it takes no more than this share of what the values span. */
const nearShare = 0.25;

/** Whether an axis shows its zero, of values that reach from low to high. */
export const isZeroShown = (shown: ZeroShown, low: number, high: number): boolean =>
  shown === true || (shown === 'near' && Math.max(low, -high) <= nearShare * (high - low));

/** An axis by its trace and its side, as scales that a hand has set are known; the bottom is that of a graph of its own. */
export const axisKey = (trace: string, side: Side | 'bottom'): string => `${trace}/${side}`;

export type ScalingFrame = Pick<Frame, 'sight' | 'withZero' | 'scales' | 'reach' | 'isGrowing'>;

/**
 * Scales a trace: as a hand has set it, or to the data with a little air; zero stays where it falls.
 * @param before the trace as it stands
 */
export function scaled(trace: DrawnTrace, frame: ScalingFrame, before: DrawnTrace | undefined): DrawnTrace {
  const rangeOf = (side: Side, standing: DrawnAxis | null | undefined): Sight => {
    const isLogarithmic = (side === 'left' ? trace : trace.right)?.isLogarithmic === true;
    const typed = usable(frame.scales[axisKey(trace.key, side)], isLogarithmic);
    if (typed != null) return typed;
    const wanted = reachOf(trace, side, frame, isLogarithmic);
    const stood = standing == null ? null : ofAxis(standing);
    return frame.isGrowing ? calmed(stood, wanted) : wanted;
  };
  const left = rangeOf('left', before);
  const { right } = trace;
  const other = right === null ? null : rangeOf('right', before?.right);
  return {
    ...trace,
    low: left.from,
    high: left.to,
    right: right === null || other === null ? null : { ...right, low: other.from, high: other.to },
  };
}

function reachOf(
  { lines, curves, target, wholes }: DrawnTrace,
  side: Side,
  { sight: { from, to }, withZero, reach }: ScalingFrame,
  isLogarithmic: boolean,
): Sight {
  const least = isLogarithmic ? Number.MIN_VALUE : -Infinity;
  let low = Infinity;
  let high = -Infinity;
  const take = (value: number) => {
    if (value < least) return;
    if (value < low) low = value;
    if (value > high) high = value;
  };
  const [first, last] = reach === 'all' ? [-Infinity, Infinity] : [from, to];
  if (reach === 'all')
    for (const whole of wholes)
      if (whole.side === side) {
        take(isLogarithmic ? (whole.positive?.least ?? whole.low) : whole.low);
        take(whole.high);
      }
  const own = lines.filter((line) => line.side === side);
  for (const { bars } of own)
    bars?.y.forEach((y, i) => {
      if (!(bars.x[i] >= first && bars.x[i] <= last)) return;
      take(y - bars.half[i]);
      take(y + bars.half[i]);
    });
  const targets = target === undefined || side === 'right' ? [] : [target];
  for (const { x, y } of [
    ...own,
    ...curves.filter((curve) => curve.side === side && curve.look === undefined),
    ...targets,
  ])
    for (let i = 0; i < y.length; i++) if (x[i] >= first && x[i] <= last) take(y[i]);
  if (!isLogarithmic && isZeroShown(withZero, low, high)) {
    low = Math.min(low, 0);
    high = Math.max(high, 0);
  }
  return isLogarithmic || high >= low ? framed(low, high, padding, isLogarithmic) : { from: 0, to: 1 };
}
