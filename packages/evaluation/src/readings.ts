import { type ChannelData } from '@heuristor/core';
import { type Channel, type Spot, numberIn, sortedRows } from '@heuristor/contracts';

/** Readings of a run as they are stored, in one array a channel. */
export interface RunReadings {
  values: Float64Array[];
  /** Null of a channel that is sampled regularly. */
  times: (Float64Array | null)[];
  /** Of values that were taken one by one: how uncertain each is, and where its sensor stood at a limit. */
  single?: SingleReadings[];
}

/** What is known of each of a channel's values, where it was taken one by one. */
export interface SingleReadings {
  uncertainties: Float64Array;
  pinned: Uint8Array;
  /** What several of them owe to one source, and what each shares with the value beside it in other channels. */
  together?: ChannelData['together'];
  beside?: ChannelData['beside'];
}

/** Readings of one channel that have come. */
export interface FreshReadings {
  channelId: number;
  firstIndex: number;
  values: Float64Array;
  times: Float64Array | null;
}

/** The columns of a series of spot readings: those that count, sorted, each with its own uncertainty. */
export function readingsOfSpot(channels: readonly Channel[], spot: Spot): RunReadings {
  const rows = sortedRows(spot);
  const columns = channels.map(({ key }) => spot.columns.find((column) => column.key === key));
  return {
    values: columns.map((column) =>
      Float64Array.from(rows, (row) => (column === undefined ? NaN : numberIn(column, row))),
    ),
    times: channels.map(() => null),
    single: channels.map(({ key }) => ({
      uncertainties: Float64Array.from(rows, ({ cells: { [key]: cell } }) =>
        cell !== undefined && 'u' in cell ? (cell.u ?? NaN) : NaN,
      ),
      pinned: Uint8Array.from(rows, ({ cells: { [key]: cell } }) =>
        Number(cell !== undefined && 'pinned' in cell && cell.pinned),
      ),
    })),
  };
}
