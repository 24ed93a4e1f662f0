import { type HoldsWhere, type TrialPlot } from '@heuristor/contracts';
import { type SeriesRef, inUnit, parseUnit, ucumCode } from '@heuristor/core';
import isEqual from 'fast-deep-equal';
import { type Sight } from '../workers/protocol';
import { type TrialRow, type ViewColumn } from './tableView';

/** An end of a span: where it lies on the horizontal axis, and by how much that is uncertain; null where no row lies beyond it. */
export type SpanEnd = { at: number; u: number | null } | null;

/** Where along the horizontal axis a condition holds. */
export interface HeldSpan {
  /** Null: it holds from the first row on, or up to the last. */
  from: SpanEnd;
  to: SpanEnd;
}

/** The unit in which a condition on a column is typed: that in which it is shown. */
export const unitOf = (column: Pick<ViewColumn, 'unit'> | undefined): string => ucumCode(column?.unit ?? []);

interface Place {
  x: number;
  /** How far the condition is from failing: it holds where this is not negative. */
  spare: number;
  u: number;
}

/** Rows at which a column and what stands along the axis have values, in their order; of those at one place the one that is nearest to failing. */
function placesOf(
  rows: readonly TrialRow[],
  across: string,
  { column, is, level, unit }: HoldsWhere,
): Place[] {
  const typedIn = parseUnit(unit);
  const worst = new Map<number, Place>();
  for (const { cells } of rows) {
    const [x, y] = [cells[across], cells[column]];
    if (x?.kind !== 'number' || y?.kind !== 'number') continue;
    const quantity = inUnit(y.quantity, typedIn);
    if (quantity === null) continue;
    const { value, standardUncertainty } = quantity;
    const place = {
      x: x.quantity.value,
      spare: is === 'atMost' ? level - value : value - level,
      u: standardUncertainty ?? 0,
    };
    const known = worst.get(place.x);
    if (known === undefined || place.spare < known.spare) worst.set(place.x, place);
  }
  return [...worst.values()].sort((a, b) => a.x - b.x);
}

/**
 * Where a condition holds: between neighbouring rows the straight line decides. An end is uncertain by the value over the slope there,
 * as where both rows are off alike, which they are where they come from one run.
 * @param across key of the column along the horizontal axis
 */
export function heldSpans(rows: readonly TrialRow[], across: string, holds: HoldsWhere): HeldSpan[] {
  const places = placesOf(rows, across, holds);
  const spans: HeldSpan[] = [];
  let from: SpanEnd | 'outside' = 'outside';
  for (const [i, place] of places.entries()) {
    const before = places.at(i - 1);
    const isIn = place.spare >= 0;
    if (i === 0 || before === undefined) {
      if (isIn) from = null;
      continue;
    }
    if (isIn === before.spare >= 0) continue;
    const share = before.spare / (before.spare - place.spare);
    const slope = (place.spare - before.spare) / (place.x - before.x);
    const u = Math.abs((before.u + share * (place.u - before.u)) / slope);
    const end = { at: before.x + share * (place.x - before.x), u: u > 0 ? u : null };
    if (isIn) from = end;
    else if (from !== 'outside') {
      spans.push({ from, to: end });
      from = 'outside';
    }
  }
  if (from !== 'outside') spans.push({ from, to: null });
  return spans;
}

/** The same as parts of the axis, which end where the rows do. */
export function markedSpans(rows: readonly TrialRow[], across: string, holds: HoldsWhere): Sight[] {
  const reach = reachOf(rows, across, holds);
  return reach === null
    ? []
    : heldSpans(rows, across, holds).map(({ from, to }) => ({
        from: from?.at ?? reach.low,
        to: to?.at ?? reach.high,
      }));
}

/** The ends between which a condition is looked at: those of the rows. */
export function reachOf(
  rows: readonly TrialRow[],
  across: string,
  holds: HoldsWhere,
): { low: number; high: number } | null {
  const places = placesOf(rows, across, holds);
  const [first, last] = [places.at(0), places.at(-1)];
  return first === undefined || last === undefined ? null : { low: first.x, high: last.x };
}

/**
 * What is marked in a plot of points because a condition holds there.
 * @param before what was marked; the same object while it is the same
 */
export function spansOfPlot(
  { kind, holds }: Pick<TrialPlot, 'kind' | 'holds'>,
  across: SeriesRef,
  rows: readonly TrialRow[],
  before: readonly Sight[] = [],
): readonly Sight[] {
  const key = across.startsWith('channel:') ? across.slice('channel:'.length) : null;
  const counted = rows.filter(({ leftOut }) => leftOut === null);
  const marked = holds === null || key === null || kind !== 'points' ? [] : markedSpans(counted, key, holds);
  return isEqual(marked, before) ? before : marked;
}
