import { type Channel } from '@heuristor/contracts';
import { type PacePoint, simplifiedTo } from '@heuristor/core';

/** A run becomes a line of so many points at most, within so much of the reach of its quantity. */
const mostOfRun = 60;
const tolerance = 0.01;
/** No finer than this is looked at: nobody follows what lies within a few thousandths of a run. */
const mostLooked = 3000;

export const writtenPoints = (points: readonly PacePoint[]): string =>
  points.map(({ t, value }) => `${t} ${value}`).join('\n');

/** Points of a line as they are typed, a time and a value each, or what is wrong with them. */
export function typedPoints(text: string, seconds: number): PacePoint[] | string {
  const points: PacePoint[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const numbers = line
      .trim()
      .replaceAll('−', '-')
      .split(/[\s;]+/)
      .map((part) => Number(part.replace(',', '.')));
    if (numbers.length !== 2 || numbers.some((number) => !Number.isFinite(number)))
      return `Line ${i + 1} is not a time and a value, such as “2.5 1.2”.`;
    const [t, value] = numbers;
    if (t < 0 || t > seconds) return `Line ${i + 1}: the time ${t} is not between 0 and ${seconds} s.`;
    if (points.length > 0 && t <= points[points.length - 1].t)
      return `Line ${i + 1}: the time ${t} is not after the one before it.`;
    points.push({ t, value });
  }
  return points.length < 2 ? 'A line has at least two points.' : points;
}

/**
 * The line that a recorded run makes, from its time zero on, without what stands at a limit of the sensor.
 * @param timeOf time of each reading, in seconds
 * @returns fewer than two points where it has too few readings
 */
export function lineOfReadings(
  values: Float64Array,
  timeOf: (index: number) => number,
  { low, high }: Pick<Channel, 'low' | 'high'>,
): PacePoint[] {
  const bundle = Math.max(Math.ceil(values.length / mostLooked), 1);
  const points: PacePoint[] = [];
  let [least, most] = [Infinity, -Infinity];
  let [count, t, value] = [0, 0, 0];
  for (let i = 0; i < values.length; i++) {
    const [own, at] = [values[i], timeOf(i)];
    const isWithin = own > (low ?? -Infinity) && own < (high ?? Infinity);
    if (isWithin && at >= 0) {
      count++;
      t += at;
      value += own;
    }
    if (count === 0 || ((i + 1) % bundle !== 0 && i + 1 < values.length)) continue;
    const point = { t: t / count, value: value / count };
    least = Math.min(least, point.value);
    most = Math.max(most, point.value);
    points.push(point);
    [count, t, value] = [0, 0, 0];
  }
  if (points.length < 2) return points;
  return simplifiedTo(points, mostOfRun, Math.max(tolerance * (most - least), 1e-9));
}
