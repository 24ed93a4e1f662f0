import { type Channel, type Spot, numberIn, sortedRows } from '@heuristor/contracts';
import { type RunReadings } from '../workers/protocol';

/** The columns of a series as the workers take them: readings that count, sorted, each with its own uncertainty. */
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

/** Whether two states of a series hold the same; the same one may come from the server again and again. */
export const isSameSpot = (a: Spot | null, b: Spot): boolean => JSON.stringify(a) === JSON.stringify(b);
