import { type Run } from '@heuristor/contracts';
import { conversionBetween, parseUnit } from '@heuristor/core';
import { getNumbers } from '../../api/client';
import { type Point } from './drawn';

/** More points than this nobody sees on so small a plot. */
const mostSeen = 600;

/**
 * What was measured in a run, in the units of a sketch.
 * @param channel its key in the run
 * @throws Error that says why it cannot lie over the sketch
 */
export async function measuredIn(
  run: Run,
  channel: string,
  units: { across: string; upright: string },
): Promise<Point[]> {
  const found = run.channels.find(({ key }) => key === channel);
  if (found === undefined) throw new Error(`${run.name} has no ${channel}.`);
  const upright = conversionBetween(parseUnit(found.unit), parseUnit(units.upright));
  const across = conversionBetween(parseUnit(found.timeUnit), parseUnit(units.across));
  if (upright === null || across === null)
    throw new Error(`${channel} of ${run.name} is measured in another unit than the sketch.`);
  const values = await getNumbers(`/channels/${found.id}/values`);
  const { sampling } = found;
  const times = sampling.kind === 'regular' ? null : await getNumbers(`/channels/${found.id}/times`);
  const timeAt = (i: number) =>
    sampling.kind === 'regular' ? sampling.start + i * sampling.interval : (times?.[i] ?? NaN);
  const every = Math.max(1, Math.ceil(values.length / mostSeen));
  const points: Point[] = [];
  for (let i = 0; i < values.length; i += every)
    points.push([across.factor * timeAt(i) + across.offset, upright.factor * values[i] + upright.offset]);
  return points;
}
