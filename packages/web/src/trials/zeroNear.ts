import { type TrialRow } from './tableView';

/** Values that are all alike but for a small part of them would look like one from zero on. */
export function isZeroNear(rows: readonly TrialRow[], upright: string | null): boolean {
  const values = rows.flatMap(({ cells }) => {
    const cell = cells[upright ?? ''];
    return cell?.kind === 'number' ? [cell.quantity.value] : [];
  });
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return values.length === 0 || high - low > 0.2 * Math.max(Math.abs(low), Math.abs(high));
}
