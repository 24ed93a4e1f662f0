import { type TrialTable } from '@heuristor/contracts';
import { type Cell } from '@heuristor/core';
import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, horizontalListSortingStrategy } from '@dnd-kit/sortable';
import {
  type ColumnDef,
  createSortedRowModel,
  columnVisibilityFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, memo, useMemo, useRef } from 'react';
import { ColumnHead } from './ColumnHead';
import { RowHead } from './RowHead';
import { TrialCell } from './TrialCell';
import { useTrials, useTrialsState } from './context';
import { isShownIn } from './counted';
import { withColumnMoved } from './trialsDocument';
import { type TableView, type TrialRow, type ViewColumn } from './tableView';

const features = tableFeatures({
  columnVisibilityFeature,
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
});

/** Rows beyond what is seen, for a quick hand. */
const spareRows = 12;

/** What a cell is sorted by; nothing stands last. */
const sortKey = (cell: Cell | undefined): number | string | undefined =>
  cell?.kind === 'number' ? cell.quantity.value : cell?.kind === 'word' ? cell.text : undefined;

const inOrder = (a: unknown, b: unknown): number =>
  typeof a === 'number' && typeof b === 'number'
    ? a - b
    : String(a).localeCompare(String(b), 'en', { numeric: true });

const columnsOf = (columns: readonly ViewColumn[]): ColumnDef<typeof features, TrialRow>[] =>
  columns.map(({ key }) => ({
    id: key,
    accessorFn: ({ cells }: TrialRow) => sortKey(cells[key]),
    sortFn: (a, b, id) => inOrder(a.getValue(id), b.getValue(id)),
    sortUndefined: 'last' as const,
  }));

/** The rows of a table, of which only those in sight are drawn. Enter and the upright arrows go down and up a column. */
export function TableGrid({ table, view }: { table: TrialTable; view: TableView }) {
  const columns = useMemo(() => columnsOf(view.columns), [view.columns]);
  const isShown = useMemo(() => isShownIn(table), [table]);
  const data = useMemo(() => view.rows.filter(isShown), [view.rows, isShown]);
  const sorting = useMemo(
    () => (table.sort === null ? [] : [{ id: table.sort.column, desc: table.sort.isDown }]),
    [table.sort],
  );
  const columnVisibility = useMemo(
    () => Object.fromEntries(view.columns.map(({ key, column }) => [key, !column.hidden])),
    [view.columns],
  );
  const grid = useTable({
    features,
    columns,
    data,
    getRowId: ({ id }) => id,
    state: { sorting, columnVisibility },
  });
  const scroller = useRef<HTMLDivElement>(null);
  const { rows } = grid.getRowModel();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight(),
    overscan: spareRows,
    // Spare rows are there before they are seen, so that no frame has to wait for them.
    useFlushSync: false,
  });
  const trials = useTrials();
  // With keys, the menu of a column moves it.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null) trials.changeTable((own) => withColumnMoved(own, String(active.id), String(over.id)));
  };
  // The same one while rows scroll by, so that those in sight are not drawn again.
  const shown = useMemo(() => view.columns.filter(({ column }) => !column.hidden), [view.columns]);
  const items = virtual.getVirtualItems();
  const [before, after] = [
    items[0]?.start ?? 0,
    items.length === 0 ? 0 : virtual.getTotalSize() - (items.at(-1)?.end ?? 0),
  ];
  return (
    <div className="trial-grid" ref={scroller}>
      <DndContext sensors={sensors} onDragEnd={onDragEnd}>
        <table onKeyDown={stepInColumn} aria-rowcount={rows.length}>
          <thead>
            <tr>
              <th scope="col">row</th>
              <SortableContext items={shown.map(({ key }) => key)} strategy={horizontalListSortingStrategy}>
                {shown.map((column) => (
                  <ColumnHead key={column.key} column={column} table={table} />
                ))}
              </SortableContext>
            </tr>
          </thead>
          <tbody>
            {before > 0 && <tr style={{ height: before }} aria-hidden />}
            {items.map(({ index }) => (
              <GridRow key={rows[index].id} row={rows[index].original} columns={shown} />
            ))}
            {after > 0 && <tr style={{ height: after }} aria-hidden />}
          </tbody>
        </table>
      </DndContext>
    </div>
  );
}

const rowHeight = () => 2 * parseFloat(getComputedStyle(document.documentElement).fontSize);

const GridRow = memo(function GridRow({ row, columns }: { row: TrialRow; columns: readonly ViewColumn[] }) {
  const trials = useTrials();
  const isMarked = useTrialsState(({ marked }) => marked === row.id);
  return (
    <tr
      className={`${row.leftOut === null ? row.kind : 'left-out'} ${isMarked ? 'marked' : ''}`}
      aria-selected={isMarked}
      onFocus={() => trials.mark(row.id)}
      onClick={() => trials.mark(row.id)}
    >
      <RowHead row={row} />
      {columns.map((column) => (
        <TrialCell key={column.key} row={row} column={column} />
      ))}
    </tr>
  );
});

function stepInColumn(event: KeyboardEvent<HTMLTableElement>): void {
  const step = event.key === 'Enter' || event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step === 0 || !(event.target instanceof HTMLInputElement)) return;
  const cell = event.target.closest('td, th');
  let row = cell?.closest('tr')?.[step === 1 ? 'nextElementSibling' : 'previousElementSibling'];
  while (row instanceof HTMLTableRowElement && cell instanceof HTMLTableCellElement) {
    const field = row.cells[cell.cellIndex]?.querySelector('input');
    if (field != null) {
      event.preventDefault();
      field.focus();
      field.select();
      return;
    }
    row = row[step === 1 ? 'nextElementSibling' : 'previousElementSibling'];
  }
}
