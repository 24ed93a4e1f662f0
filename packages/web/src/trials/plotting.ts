import { type TrialColumn, type TrialTable, panelOf } from '@heuristor/contracts';
import { type SeriesRef, channelRef } from '@heuristor/core';
import { type StoreApi } from 'zustand/vanilla';
import { type SheetSession } from '../investigation/sheetSession';
import { pageIn, panelsOf, withHorizontal, withLogarithm, withLogarithmAcross } from '../traces/pages/pages';
import { withEntry } from '../workings/edits';
import { numberColumns } from './derivedRun';
import { unitOf } from './holds';
import { type Straightening } from './straightenings';
import { type TableView } from './tableView';
import { newColumn, withColumn, withRows } from './trialsDocument';

const columnOf = (reference: SeriesRef): string | null =>
  reference.startsWith('channel:') ? reference.slice('channel:'.length) : null;

/** What is drawn, and where that is kept. */
interface PlotHost extends Pick<
  SheetSession,
  'view' | 'viewing' | 'history' | 'workings' | 'runs' | 'onPage' | 'changePage' | 'changeWorkings'
> {
  /** The table that is looked at, as it is shown. */
  readonly state: StoreApi<{ view: TableView | null }>;
  readonly shownTable: TrialTable | undefined;
  /** How many runs rows are made of. */
  readonly rowRuns: number;
  changeTable(change: (table: TrialTable) => TrialTable): void;
}

/** Which columns of a table its points are of; columns that come take their place on the axes. */
export class Plotting {
  constructor(private readonly trials: PlotHost) {}

  /** The column that is drawn upright; null where another series of the sheet is. */
  get upright(): string | null {
    const { runs } = this.trials;
    const [panel] = panelsOf(this.page, runs);
    return columnOf(panel?.series[0] ?? 't');
  }

  /** What stands along the horizontal axis. */
  get across(): SeriesRef {
    return this.page.horizontal;
  }

  /** Which of its axes are logarithmic. */
  get logarithmic(): Record<'upright' | 'across', boolean> {
    const { page } = this;
    const [panel] = panelsOf(page, this.trials.runs);
    return { upright: panel?.logarithmic?.includes('left') === true, across: page.logarithmic === true };
  }

  makeLogarithmic(axis: 'upright' | 'across', is: boolean): void {
    this.trials.changePage((page, runs) => {
      const [panel] = panelsOf(page, runs);
      if (axis === 'across') return withLogarithmAcross(page, is);
      return panel === undefined ? page : withLogarithm(page, runs, panel.id, 'left', is);
    });
    this.lookAnew();
  }

  /** A condition on a column, to be changed then. */
  markWhere(column: string): void {
    const viewed = this.trials.state.getState().view?.columns.find(({ key }) => key === column);
    this.trials.changeTable((table) => ({
      ...table,
      plot: { ...table.plot, holds: { column, is: 'atMost', level: 0, unit: unitOf(viewed) } },
    }));
  }

  /** @param key of a column; null for the number of the row */
  putAcross(key: string | null): void {
    this.asPoints();
    this.trials.changePage((page) => ({
      ...withLogarithmAcross(page, false),
      horizontal: key === null ? 't' : channelRef(key),
    }));
    this.lookAnew();
  }

  putUpright(key: string): void {
    this.asPoints();
    this.trials.changePage((page) => ({ ...page, panels: [panelOf(channelRef(key))], labels: [] }));
    this.lookAnew();
  }

  /** Rows are values of a constant of the workings, which becomes a column. */
  chooseConstant(entry: string): void {
    const { trials } = this;
    const columns = trials.shownTable?.columns ?? [];
    const own =
      columns.find((column) => column.kind === 'result' && column.entry === entry) ??
      newColumn({ kind: 'result', entry, field: 'value' });
    const name =
      columns.find((column) => column.kind === 'run' && column.of === 'name') ??
      newColumn({ kind: 'run', of: 'name', hidden: true });
    const wanted = trials.rowRuns > 1 ? [own, name] : [own];
    trials.history.hold();
    trials.changeTable((table) => ({
      ...withRows(wanted.filter((column) => !columns.includes(column)).reduce(withColumn, table), {
        kind: 'constant',
        entry,
        ends: '',
        count: 21,
      }),
      // What follows in each run is a line of its own.
      plot: { ...table.plot, kind: 'points', apart: trials.rowRuns > 1 ? name.key : table.plot.apart },
    }));
    trials.changePage((page) => withHorizontal({ ...page, labels: [] }, channelRef(own.key)));
    trials.history.release();
    this.lookAnew();
  }

  /** What is a row: a run, or each value of a series, which becomes a column. */
  chooseRows(of: SeriesRef | null): void {
    const { trials } = this;
    const isThere = trials.shownTable?.columns.some((column) => column.kind === 'value' && column.of === of);
    trials.history.hold();
    trials.changeTable((table) => withRows(table, of === null ? { kind: 'runs' } : { kind: 'values', of }));
    if (of !== null && isThere !== true) this.addColumn(newColumn({ kind: 'value', of }));
    trials.history.release();
  }

  /** A column more, as one step; the first two of numbers are drawn against each other. */
  addColumn(column: TrialColumn): void {
    const { history } = this.trials;
    history.hold();
    this.trials.changeTable((table) => withColumn(table, column));
    this.drawAlso(column);
    history.release();
  }

  /** A column that has come takes its place on the axes, where there is room. */
  private drawAlso(column: TrialColumn): void {
    const { trials } = this;
    const numbers = numberColumns(trials.state.getState().view?.columns ?? []);
    if (!numbers.some(({ key }) => key === column.key)) return;
    const { horizontal, panels } = this.page;
    if (panels.length === 0)
      trials.changePage((page) => ({ ...page, panels: [panelOf(channelRef(column.key))] }));
    else if (horizontal === 't' && numbers.length === 2) {
      // What is typed of runs is what was changed; what follows stands upright.
      const [other] = numbers.filter(({ key }) => key !== column.key);
      const isCause = column.kind === 'condition' && other.column.kind !== 'condition';
      const [across, upright] = isCause ? [column.key, other.key] : [other.key, column.key];
      trials.changePage((page) => ({
        ...page,
        horizontal: channelRef(across),
        panels: [panelOf(channelRef(upright))],
      }));
    }
    this.lookAnew();
  }

  /** Draws formulas of the two columns against each other, and a line through them, as one step. */
  straighten({ upright, across }: Straightening): void {
    const { trials } = this;
    const made: TrialColumn[] = [];
    const columnFor = (formula: string | null, present: string | null): string | null => {
      if (formula === null) return present;
      const known = trials.shownTable?.columns.find(
        (column) => column.kind === 'formula' && column.formula === formula,
      );
      if (known !== undefined) return known.key;
      const column = newColumn({ kind: 'formula', formula });
      made.push(column);
      return column.key;
    };
    const x = columnFor(across, columnOf(this.across));
    const y = columnFor(upright, this.upright);
    if (x === null || y === null) return;
    trials.history.hold();
    trials.changeTable((table) => made.reduce(withColumn, table));
    trials.changePage((page) => ({
      ...withLogarithmAcross(page, false),
      horizontal: channelRef(x),
      panels: [panelOf(channelRef(y))],
      labels: [],
    }));
    trials.changeWorkings(
      (workings) =>
        withEntry(workings, trials.onPage, {
          kind: 'fit',
          preset: { relation: 'line', against: channelRef(x) },
          of: channelRef(y),
          region: null,
        }).workings,
    );
    trials.history.release();
    this.lookAnew();
  }

  /** Points are drawn, whatever was before. */
  private asPoints(): void {
    const { trials } = this;
    if (trials.shownTable?.plot.kind !== 'points')
      trials.changeTable((table) => ({ ...table, plot: { ...table.plot, kind: 'points' } }));
  }

  private get page() {
    const { workings, onPage } = this.trials;
    return pageIn(workings, onPage.page);
  }

  /** Other columns stand on the axes: what was seen of the former ones means nothing. */
  private lookAnew(): void {
    this.trials.viewing.leaveInterval();
    this.trials.view.setState({ scales: {} });
  }
}
