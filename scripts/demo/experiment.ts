import {
  type ConditionColumn,
  type Panel,
  type WorkingsDocument,
  emptyPage,
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
