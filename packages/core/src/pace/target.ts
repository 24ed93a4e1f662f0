import { indexAfter, indexAtOrAfter } from '../series/sampling';
import { type Unit } from '../units/unit';

export interface PacePoint {
  /** Seconds since the run began. */
  t: number;
  value: number;
}

/** A line that a run was to follow. */
export interface Pace {
  /** Key of the quantity. */
  quantity: string;
  of: 'reading' | 'speed';
  unit: Unit;
  points: readonly PacePoint[];
}

/** The value of the line at a time: straight from point to point, flat before the first and after the last. */
export function targetAt(points: readonly PacePoint[], t: number): number {
  const next = indexAtOrAfter({ kind: 'timed', times: timesOfPoints(points) }, t);
  if (next === 0) return points[0].value;
  if (next >= points.length) return points[points.length - 1].value;
  const [a, b] = [points[next - 1], points[next]];
  return a.value + ((t - a.t) / (b.t - a.t)) * (b.value - a.value);
}

/** The line at many ascending times, in one pass. */
export function targetAtAll(points: readonly PacePoint[], times: ArrayLike<number>): Float64Array {
  const values = new Float64Array(times.length);
  let next = 0;
  for (let i = 0; i < times.length; i++) {
    while (next < points.length && points[next].t <= times[i]) next++;
    if (next === 0) values[i] = points[0].value;
    else if (next === points.length) values[i] = points[points.length - 1].value;
    else {
      const [a, b] = [points[next - 1], points[next]];
      values[i] = a.value + ((times[i] - a.t) / (b.t - a.t)) * (b.value - a.value);
    }
  }
  return values;
}

const timesOfPoints = (points: readonly PacePoint[]) => Float64Array.from(points, ({ t }) => t);

/** A straight part of the line that is long enough to be followed. */
export interface Segment {
  from: number;
  to: number;
  /** Change of the value by time. */
  slope: number;
}

/** Shorter parts are corners that nobody follows. */
const shortestSegment = 0.75;
/** Parts whose slopes differ by less than this share of the steepest one are one part. */
const sameSlope = 0.02;

/** The straight parts of a line, those that go on in the same way joined. */
export function segmentsOf(points: readonly PacePoint[]): Segment[] {
  const parts: Segment[] = [];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    parts.push({ from: a.t, to: b.t, slope: (b.value - a.value) / (b.t - a.t) });
  }
  const steepest = Math.max(...parts.map(({ slope }) => Math.abs(slope)));
  const joined: Segment[] = [];
  for (const part of parts) {
    const last = joined[joined.length - 1];
    if (last !== undefined && Math.abs(last.slope - part.slope) <= sameSlope * steepest) {
      last.slope =
        (last.slope * (last.to - last.from) + part.slope * (part.to - part.from)) / (part.to - last.from);
      last.to = part.to;
    } else joined.push({ ...part });
  }
  return joined.filter(({ from, to }) => to - from >= shortestSegment);
}

/** Places of the readings that belong to a time of the line. */
export const within = (sampling: Parameters<typeof indexAtOrAfter>[0], from: number, to: number) =>
  [indexAtOrAfter(sampling, from), indexAfter(sampling, to)] as const;
