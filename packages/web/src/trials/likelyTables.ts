import { type TrialColumn, type TrialTable, panelOf, emptyTable } from '@heuristor/contracts';
import { channelRef, entryIn, resultRef, sameName } from '@heuristor/core';
import { repeatsIn } from './rowOutcomes';
import { resultTitles } from './resultTitles';
import { type TableInputs } from './tableView';
import { newColumn } from './trialsDocument';

/** A table that the workings make likely. */
export interface LikelyTable {
  title: string;
  table: Omit<TrialTable, 'id'>;
}

const most = 3;

/** Each main result against each condition that differs between runs; the first three. */
export function likelyTables(inputs: Omit<TableInputs, 'table'>): LikelyTable[] {
  const { runs, conditions, workings, outcomes } = inputs;
  const called = resultTitles(inputs);
  const varying = conditions.filter(({ key }) => {
    const said = runs.flatMap(({ conditions: own }) =>
      own[key] === undefined ? [] : [JSON.stringify(own[key])],
    );
    return new Set(said).size > 1;
  });
  const results = workings.entries.flatMap((entry) => {
    if (entry.kind === 'constant') return [];
    for (const { results: found } of outcomes.values())
      for (const result of found.values())
        if (result.entry === entry.id && result.main)
          return [{ entry, field: result.field, name: entry.name === '' ? result.name : entry.name }];
    return [];
  });
  const alike = new Map<string, number>();
  for (const { name } of results) alike.set(sameName(name), (alike.get(sameName(name)) ?? 0) + 1);
  const titleOf = ({ entry, field, name }: (typeof results)[number]) =>
    (alike.get(sameName(name)) ?? 0) > 1 ? (called[resultRef(entry.id, field)] ?? name) : name;
  const numbers = varying.filter(({ kind }) => kind === 'number');
  const words = varying.filter(({ kind }) => kind === 'word');
  const made: LikelyTable[] = [];
  // Where a run is a row of single measurements, these are what there is to compare.
  for (const [upright, across] of measuredPairs(inputs))
    made.push({
      title: `${upright.symbol} against ${across.symbol}, each of them a row`,
      table: {
        ...emptyTable,
        name: `${upright.symbol} against ${across.symbol}`.slice(0, 60),
        rows: { kind: 'values', of: upright.of },
        ...pointsOf(
          newColumn({ kind: 'value', of: across.of }),
          newColumn({ kind: 'value', of: upright.of }),
        ),
      },
    });
  // The last results of a sheet are what the others were made for.
  for (const result of [...results].reverse())
    for (const condition of [...numbers, ...words]) {
      const across = newColumn({ kind: 'condition', condition: condition.key });
      const upright = newColumn({ kind: 'result', entry: result.entry.id, field: result.field });
      const isNumber = condition.kind === 'number';
      made.push({
        title: `${titleOf(result)} ${isNumber ? 'against' : 'by'} ${condition.name}`,
        table: {
          ...emptyTable,
          name: `${result.name} ${isNumber ? 'against' : 'by'} ${condition.name}`.slice(0, 60),
          columns: [across, upright],
          plot: {
            ...emptyTable.plot,
            kind: isNumber ? 'points' : 'bars',
            value: upright.key,
            category: isNumber ? null : across.key,
          },
          sheet: { entries: [], pages: [pageOf(isNumber ? across.key : null, upright.key)] },
        },
      });
    }
  if (made.length < most)
    for (const result of varying.length > 0 ? [] : [...results].reverse()) {
      const upright = newColumn({ kind: 'result', entry: result.entry.id, field: result.field });
      made.push({
        title: `${titleOf(result)} of every run`,
        table: {
          ...emptyTable,
          name: result.name.slice(0, 60),
          columns: [upright],
          plot: { ...emptyTable.plot, kind: 'spread', value: upright.key },
          sheet: { entries: [], pages: [pageOf(null, upright.key)] },
        },
      });
    }
  return made.slice(0, most);
}

/** Columns that are drawn against each other. */
const pointsOf = (across: TrialColumn, upright: TrialColumn) => ({
  columns: [across, upright],
  plot: { ...emptyTable.plot, value: upright.key },
  sheet: { entries: [], pages: [pageOf(across.key, upright.key)] },
});

type Measured = ReturnType<typeof repeatsIn>[number];

/** Series of single measurements that belong together: what was typed and what was read at it, or what an entry tells of each. */
function measuredPairs(inputs: Pick<TableInputs, 'outcomes'>): [upright: Measured, across: Measured][] {
  const bySource = new Map<string, Measured[]>();
  for (const one of repeatsIn(inputs)) {
    const source = one.of.startsWith('channel:') ? 'channel' : entryIn(one.of);
    bySource.set(source, [...(bySource.get(source) ?? []), one]);
  }
  return [...bySource].flatMap(([source, [first, second]]): [Measured, Measured][] =>
    second === undefined ? [] : source === 'channel' ? [[second, first]] : [[first, second]],
  );
}

/** A page of one trace: a column against another one, or against the number of the row. */
export const pageOf = (across: string | null, upright: string | null) => ({
  id: 'page-1',
  name: '',
  horizontal: across === null ? ('t' as const) : channelRef(across),
  panels: upright === null ? [] : [panelOf(channelRef(upright))],
  labels: [],
});
