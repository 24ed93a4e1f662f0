import { type LeftOutCount, sortedRows } from '@heuristor/contracts';
import { parseUnit, strayFloor, withoutStrays } from '@heuristor/core';
import { ChannelModel } from '../models/channel';
import { readRun } from './runs';
import { allSamples } from './samples';

interface Screened {
  /** Readings in their places; what is no measurement is missing (NaN). */
  good: Float64Array;
  pinned: number;
  strays: number;
}

const countMissing = (values: Float64Array) =>
  values.reduce((sum, value) => sum + Number(value !== value), 0);

/** Takes readings at a limit and wrong echoes out of what was recorded, as the bench does. */
export function screened({ low, high, sampling, ...channel }: ChannelModel, values: Float64Array): Screened {
  const isPinned = (value: number) => (low !== null && value <= low) || (high !== null && value >= high);
  const within = values.map((value) => (isPinned(value) ? NaN : value));
  const floor =
    sampling.kind === 'regular'
      ? strayFloor({ ...channel, unit: parseUnit(channel.unit) }, sampling.interval)
      : null;
  const good = withoutStrays(within, floor);
  const [missing, left] = [countMissing(values), countMissing(within)];
  return { good, pinned: left - missing, strays: countMissing(good) - left };
}

/** How many readings of each channel of a run are no measurement. */
export async function leftOutOf(runId: string): Promise<LeftOutCount[]> {
  const { spot, channels: own } = await readRun(runId);
  if (spot !== null) {
    const rows = sortedRows(spot);
    return own.map(({ id, key }) => ({
      channel: id,
      pinned: rows.filter(
        ({ cells: { [key]: cell } }) => cell !== undefined && 'pinned' in cell && cell.pinned,
      ).length,
      strays: 0,
    }));
  }
  const channels = await ChannelModel.query().where({ runId }).orderBy('position');
  const counts: LeftOutCount[] = [];
  // One after the other, so that a long run does not fill the memory.
  for (const channel of channels) {
    const { pinned, strays } = screened(channel, await allSamples(channel, 'values'));
    counts.push({ channel: channel.id, pinned, strays });
  }
  return counts;
}
