import { type Influence, type Quantity } from '../results/quantity';
import { numberCell } from '../trials/cell';
import { type NumberColumn, tabled } from '../trials/tabled';
import { channelOf } from './sheet';
import { parseUnit } from '../units/unit';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type NamedResult } from '../workings/outcome';
import { type RunData } from '../workings/run';

/** A quantity that is moved by roots, each by one number. */
export const movedBy = (value: number, unit: string, by: Readonly<Record<string, number>>): Quantity => {
  const influences = Object.entries(by).map(([root, effect]): Influence => ({
    root,
    label: root,
    effect: { first: 0, weights: Float64Array.of(effect) },
  }));
  return {
    value,
    unit: parseUnit(unit),
    standardUncertainty: influences.length === 0 ? null : Math.hypot(...Object.values(by)),
    degreesOfFreedom: Infinity,
    influences: () => influences,
  };
};

export const columnOf = (key: string, unit: string, quantities: readonly Quantity[]): NumberColumn => ({
  key,
  unit: parseUnit(unit),
  cells: quantities.map((quantity) => numberCell(quantity)),
});

/** A table as the run that it is. */
export const runOfTable = (columns: readonly NumberColumn[]): RunData => ({
  id: 'table',
  channels: tabled(columns).map(({ key, ...parts }, i) => ({
    ...channelOf(key, '', parts.values, 1, ''),
    ...parts,
    unit: columns[i].unit,
  })),
});

export const lineOf = (of: string, against: string, weights: 'own' | 'equal' = 'own'): Entry => ({
  kind: 'fit',
  id: 'line',
  name: '',
  relation: 'line',
  of: `channel:${of}`,
  against: `channel:${against}`,
  region: null,
  weights,
  showResiduals: false,
});

export const meanEntry = (of: string): Entry => ({
  kind: 'statistics',
  id: 'mean',
  name: '',
  of: `channel:${of}`,
  region: null,
});

/** The results of an entry over a table, by their keys. @throws Error where it is refused */
export function resultsOver(columns: readonly NumberColumn[], entry: Entry): Record<string, NamedResult> {
  const outcome = evaluate({ entries: [entry] }, runOfTable(columns)).outcomes.get(entry.id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return Object.fromEntries(outcome.results.map((result) => [result.key, result]));
}
