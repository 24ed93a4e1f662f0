import { type Influence, type Quantity, merged } from '../results/quantity';
import { dotOfSpans } from '../series/noisePath';
import { type SharedEffect } from '../series/series';
import { type Unit } from '../units/unit';
import { type Cell } from './cell';
import { inUnit } from './inUnit';

/** A column of numbers, as the readings of a channel. */
export interface TabledColumn {
  key: string;
  /** In the unit of the column; NaN where there is no number. */
  values: Float64Array;
  /** Standard uncertainty of each; NaN where it has none. */
  uncertainties: Float64Array;
  /** What several rows owe to one source, and how far one standard deviation of it moves the value of each. */
  together: SharedEffect[];
  /** Covariance with the value of the same row in other columns, by their keys, without what is in `together`. */
  beside: Record<string, Float64Array>;
}

/** A column before its numbers are laid out. */
export interface NumberColumn {
  key: string;
  unit: Unit;
  /** One a row. */
  cells: readonly Cell[];
}

/**
 * Columns of numbers as channels of a run whose readings are the rows. What rows owe to the same source (a constant, a calibration,
 * a length) stays one source; what the columns of one row owe to the same readings stays a covariance (JCGM 100:2008, F.1.2).
 */
export function tabled(columns: readonly NumberColumn[]): TabledColumn[] {
  const quantities = columns.map(({ unit, cells }) =>
    cells.map((cell) => (cell.kind === 'number' ? inUnit(cell.quantity, unit) : null)),
  );
  const influences = takenApart(
    quantities.map((column) =>
      column.map((quantity) =>
        quantity === null || quantity.standardUncertainty === null ? none : merged(quantity.influences()),
      ),
    ),
  );
  const shared = sharedRoots(influences);
  return columns.map(({ key }, c) => ({
    key,
    values: Float64Array.from(quantities[c], (quantity) => quantity?.value ?? NaN),
    uncertainties: Float64Array.from(quantities[c], uncertaintyOf),
    together: [...shared].flatMap(([root, label]) => effectOf(root, label, influences[c])),
    beside: Object.fromEntries(
      columns.flatMap((other, d) => {
        if (d === c) return [];
        const covariance = Float64Array.from(influences[c], (own, row) =>
          covarianceIn(own, influences[d][row], shared),
        );
        return covariance.some((value) => value !== 0) ? [[other.key, covariance]] : [];
      }),
    ),
  }));
}

const none: readonly Influence[] = [];

const uncertaintyOf = (quantity: Quantity | null): number => quantity?.standardUncertainty ?? NaN;

type Influences = readonly (readonly (readonly Influence[])[])[];

/**
 * Readings of one run that stand behind several rows, as where each is what follows from another value of a constant: each number of
 * theirs is a root of its own, so that it can be one that rows share.
 */
function takenApart(influences: Influences): Influences {
  const rowOf = new Map<string, number>();
  const several = new Set<string>();
  for (const column of influences)
    column.forEach((own, row) => {
      for (const { root, effect } of own) {
        if (effect.weights.length === 1) continue;
        const known = rowOf.get(root);
        if (known === undefined) rowOf.set(root, row);
        else if (known !== row) several.add(root);
      }
    });
  if (several.size === 0) return influences;
  return influences.map((column) =>
    column.map((own) =>
      own.flatMap((influence): Influence[] => {
        const { root, label, effect } = influence;
        if (!several.has(root)) return [influence];
        return Array.from(effect.weights, (weight, i): Influence => ({
          root: `${root}#${effect.first + i}`,
          label,
          effect: { first: 0, weights: Float64Array.of(weight) },
        })).filter(({ effect: { weights } }) => weights[0] !== 0);
      }),
    ),
  );
}

/** Roots that move numbers of several rows, with what people call them. */
function sharedRoots(influences: Influences): Map<string, string> {
  const firstRow = new Map<string, number>();
  const shared = new Map<string, string>();
  for (const column of influences)
    column.forEach((own, row) => {
      for (const { root, label, effect } of own) {
        // Several numbers of one root are readings of a run; those of other rows are others.
        if (effect.weights.length !== 1) continue;
        const known = firstRow.get(root);
        if (known === undefined) firstRow.set(root, row);
        else if (known !== row) shared.set(root, label);
      }
    });
  return shared;
}

function effectOf(root: string, label: string, column: readonly (readonly Influence[])[]): SharedEffect[] {
  const effect = new Float64Array(column.length);
  let isMoved = false;
  column.forEach((own, row) => {
    const found = own.find((one) => one.root === root);
    if (found === undefined) return;
    [effect[row]] = found.effect.weights;
    isMoved = true;
  });
  return isMoved ? [{ root, label, effect }] : [];
}

/** What two numbers of a row owe to the same sources, without those that other rows share. */
function covarianceIn(
  own: readonly Influence[],
  others: readonly Influence[],
  shared: ReadonlyMap<string, string>,
): number {
  let sum = 0;
  for (const { root, effect } of own) {
    if (shared.has(root)) continue;
    for (const other of others) if (other.root === root) sum += dotOfSpans(effect, other.effect);
  }
  return sum;
}
