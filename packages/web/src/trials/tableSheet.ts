import {
  type Run,
  type TrialTable,
  type WorkingsDocument,
  emptyPage,
  emptyWorkings,
} from '@heuristor/contracts';
import { type Condition } from '@heuristor/core';
import { type Documents } from '../investigation/state';
import { seenBy } from '../runs/seenRun';
import { type DerivedRun } from './derivedRun';
import { type TrialRow } from './tableView';
import { type Sight } from '../workers/protocol';

type Aside = WorkingsDocument['aside'];
type Entries = WorkingsDocument['entries'];

/** The sheet of a table, as workings over the run that the table is. */
export const workingsOf = (table: TrialTable | undefined, aside: Aside): WorkingsDocument => ({
  ...emptyWorkings,
  entries: table?.sheet.entries ?? [],
  pages: table?.sheet.pages ?? [emptyPage],
  aside,
});

/** The run that a table is has no id of a stored one. */
export const runIdOf = (table: string): string => `trials-${table}`;

/**
 * What a page of traces has to know of a table.
 * @param given what its conclusions can speak of beside its columns @param spans what is marked along the horizontal axis
 */
export function documentsOf(
  { name, plan }: Documents,
  workings: WorkingsDocument,
  runs: readonly Run[],
  { given = [], spans = [] }: { given?: readonly Condition[]; spans?: readonly Sight[] } = {},
): Documents {
  return {
    name,
    plan: {
      ...plan,
      conditions: given.map(({ name: called, unit }) => ({
        key: called,
        name: called,
        kind: 'number',
        unit,
      })),
      way: 'spot',
    },
    given,
    spans,
    runs: seenBy(runs, []),
    workings,
    recorder: { phase: 'idle' },
    spots: { phase: 'idle' },
    sensors: [],
  };
}

/** All that the evaluation of a table sees of it. */
export const textOfRun = (derived: DerivedRun): string =>
  JSON.stringify(
    [
      derived.run.number,
      derived.run.name,
      derived.places,
      derived.readings(),
      derived.run.channels.map(({ key, symbol, unit }) => [key, symbol, unit]),
    ],
    plain,
  );

const plain = (_key: string, value: unknown): unknown =>
  value instanceof Float64Array || value instanceof Uint8Array ? [...value].map(String) : value;

/** New fits count points by their uncertainties where all of them have some. @param rows those that are plotted */
export function withWeights(before: Entries, after: Entries, rows: readonly TrialRow[]): Entries {
  const known = new Set(before.map(({ id }) => id));
  const counted = rows.filter(({ leftOut }) => leftOut === null);
  return after.map((entry) => {
    if (known.has(entry.id) || (entry.kind !== 'fit' && entry.kind !== 'formulaFit')) return entry;
    const key = entry.of.startsWith('channel:') ? entry.of.slice('channel:'.length) : null;
    const isUncertain =
      key !== null &&
      counted.every(
        ({ cells: { [key]: cell } }) => cell?.kind !== 'number' || cell.quantity.standardUncertainty !== null,
      );
    return isUncertain ? { ...entry, weights: 'own' as const } : entry;
  });
}

/** Readings that a hand has set aside in a plot are rows that do not count; one of which a number is taken back counts again. */
export function leftOutBy(
  { leftOut, columns }: TrialTable,
  derived: readonly Pick<DerivedRun, 'run' | 'rows'>[],
  before: Aside,
  after: Aside,
): TrialTable['leftOut'] {
  const keys = new Set(columns.map(({ key }) => key));
  const channelsOf = (all: Aside, id: string, i: number) =>
    all.filter(
      ({ run, channel, ranges }) =>
        run === id && keys.has(channel) && ranges.some(([first, past]) => i >= first && i < past),
    ).length;
  let left = leftOut;
  for (const { run, rows } of derived)
    for (const [i, { id }] of rows.entries()) {
      const [was, is] = [channelsOf(before, run.id, i), channelsOf(after, run.id, i)];
      if (was === is) continue;
      const others = left.filter(({ row }) => row !== id);
      left = is > was ? [...others, { row: id, why: '' }] : others;
    }
  return left;
}
