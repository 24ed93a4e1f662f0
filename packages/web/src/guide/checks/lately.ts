import { type Thread } from '../../sensors/devices';

/** Values of the last seconds that are numbers, oldest first, and how long they reach back. */
export function lately({ times, values }: Thread, seconds: number): { values: number[]; reach: number } {
  const end = times.at(-1) ?? 0;
  const from = times.findIndex((time) => time > end - seconds);
  if (from < 0) return { values: [], reach: 0 };
  return { values: values.slice(from).filter(Number.isFinite), reach: end - times[from] };
}
