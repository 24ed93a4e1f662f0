import {
  type BroughtSheet,
  type ConditionColumn,
  type GuideItem,
  type Panel,
  type TrialColumn,
  type TrialTable,
  type WorkingsDocument,
  emptyPage,
  emptyTable,
  emptyWorkings,
  panelOf,
} from '@heuristor/contracts';
import {
  type Entry,
  type EntryKindKey,
  type EntryOfKind,
  type FormulaText,
  type SeriesRef,
  kindOf,
  usualOf,
} from '@heuristor/core';

import { type DemoRun, type DemoSpots } from './record';

/** An investigation of the demo: how its runs are made, and the sheet over them, which is kept as a template too. */
export interface Experiment {
  name: string;
  template: { name: string; about: string };
  /** What is said of each run. */
  conditions: ConditionColumn[];
  workings: WorkingsDocument;
  /** What leads a class through it. @param sheet what its steps bring */
  guide(sheet: BroughtSheet): GuideItem[];
  /** Tables over its runs, with what is concluded from them. */
  tables?: TrialTable[];
  runs: readonly (DemoRun | DemoSpots)[];
}

/** An entry in which only what is not usual is said. */
export function entry<K extends EntryKindKey>(
  kind: K,
  id: string,
  name: string,
  values: Partial<EntryOfKind<K>>,
): Entry {
  const usual = Object.entries(kindOf(kind).fields)
    .filter(([, { later }]) => later !== true)
    .map(([key, field]) => [key, usualOf(field)]);
  return { ...Object.fromEntries(usual), kind, id, name, ...values } as Entry;
}

/** A formula whose names are known by what they stand for. */
export const formula = (text: string, names: FormulaText['names'] = {}): FormulaText => ({ text, names });

export const constant = (
  id: string,
  name: string,
  value: number,
  uncertainty: number,
  unit: string,
  source: string,
): Entry => entry('constant', id, name, { value, uncertainty, unit, source });

/** An entry of which only the main number is shown. */
export const folded = (one: Entry): Entry => ({ ...one, folded: true });

/** A sheet with one page: each trace is a series, or several over each other. */
export function sheet(
  entries: Entry[],
  traces: readonly (SeriesRef | SeriesRef[])[],
  horizontal: SeriesRef = 't',
): WorkingsDocument {
  const panels = traces.map((trace): Panel => {
    const all = Array.isArray(trace) ? trace : [trace];
    return { ...panelOf(all[0]), series: all };
  });
  return { ...emptyWorkings, entries, pages: [{ ...emptyPage, horizontal, panels }] };
}

/** A column of the results of an entry. */
export const resultColumn = (entryId: string, field: string, name = '', unit = ''): TrialColumn => ({
  kind: 'result',
  key: `c-${entryId}-${field}`,
  entry: entryId,
  field,
  name,
  unit,
  hidden: false,
});

/** A column of the values of a series of single measurements, each of which is a row. */
export const valueColumn = (of: SeriesRef, key: string): TrialColumn => ({
  kind: 'value',
  key,
  of,
  name: '',
  unit: '',
  hidden: false,
});

/** A column of what is known of each run. */
export const runColumn = (of: 'name' | 'group'): TrialColumn => ({
  kind: 'run',
  key: `c-${of}`,
  of,
  name: '',
  unit: '',
  hidden: true,
});

export const columnRef = ({ key }: TrialColumn): SeriesRef => `channel:${key}`;

/** A table of trials with points of one column against another, and what is concluded from them. */
export const pointsTable = (
  name: string,
  columns: TrialColumn[],
  upright: TrialColumn,
  across: TrialColumn,
  entries: Entry[],
): TrialTable => {
  const { pages } = sheet(entries, [columnRef(upright)], columnRef(across));
  return { ...emptyTable, id: 'table-1', name, columns, sheet: { entries, pages } };
};

/** A table of points of which both axes are logarithmic. */
export const logarithmic = (table: TrialTable): TrialTable => ({
  ...table,
  sheet: {
    ...table.sheet,
    pages: table.sheet.pages.map((page) => ({
      ...page,
      logarithmic: true,
      panels: page.panels.map((panel) => ({ ...panel, logarithmic: ['left'] })),
    })),
  },
});

/** A table of trials with bars of one column by the words of another. */
export const barsTable = (
  name: string,
  columns: TrialColumn[],
  value: TrialColumn,
  category: TrialColumn,
): TrialTable => ({
  ...emptyTable,
  id: 'table-1',
  name,
  columns,
  plot: { ...emptyTable.plot, kind: 'bars', value: value.key, category: category.key },
});
