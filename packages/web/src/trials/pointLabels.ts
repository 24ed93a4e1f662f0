import { type Page, type Run } from '@heuristor/contracts';
import { type SeriesRef, nothing } from '@heuristor/core';
import { type GivenLabel } from '../traces/labels/labelReader';
import { panelsOf } from '../traces/pages/pages';
import { type SeenRun } from '../runs/seenRun';
import { calledBy } from './cellText';
import { type DerivedRun } from './derivedRun';
import { type TrialRow } from './tableView';

/** So many points can have names; more would cover each other. */
const mostNames = 100;
/** Where a name stands from its point, in pixels. */
const above = { x: 0, y: -14 };
const beside = { x: 0, y: 20 };

interface Named {
  /** The column that names points; null where none does. */
  names: string | null;
  /** The row that is marked. */
  marked: string | null;
  page: Page;
  runs: readonly SeenRun[];
}

/** What stands beside the points of a plot: what a column says of each, and which row is marked. */
export function pointLabels(
  derived: readonly Pick<DerivedRun, 'run' | 'rows' | 'places'>[],
  { names, marked, page, runs }: Named,
): GivenLabel[] {
  const [panel] = panelsOf(page, runs);
  const series = panel?.series[0];
  if (panel === undefined || series === undefined || series === 't') return [];
  const labelOf = (kind: GivenLabel['as'], run: Run, place: number, text: string): GivenLabel => ({
    as: kind,
    label: {
      id: `${kind} ${run.id} ${place}`,
      panel: panel.id,
      text: text.slice(0, 60),
      at: { kind: 'point', run: run.id, series: series as SeriesRef, x: place },
      offset: kind === 'name' ? above : beside,
    },
  });
  const labels: GivenLabel[] = [];
  for (const { run, rows, places } of derived)
    for (const [i, row] of rows.entries()) {
      const text = names === null ? '' : calledBy(row.cells[names] ?? nothing);
      if (text !== '' && labels.length < mostNames && row.leftOut === null)
        labels.push(labelOf('name', run, places[i], text));
      if (row.id === marked) labels.push(labelOf('mark', run, places[i], calledOf(row)));
    }
  return labels;
}

const calledOf = ({ run, place, name }: TrialRow): string =>
  run === null ? name || 'typed row' : `${run.number}${place === null ? '' : `.${place + 1}`} ${name}`;
