import { type TrialTable } from '@heuristor/contracts';
import { barsOf } from './categoryBars';
import { CategoryChart } from './CategoryChart';
import { type TableView } from './tableView';
import { countedRows } from './counted';

interface Props {
  table: TrialTable;
  view: TableView;
}

export function Bars({ table, view }: Props) {
  const columnCalled = (key: string | null) => view.columns.find((column) => column.key === key);
  const value = columnCalled(table.plot.value);
  if (value === undefined || value.unit === null)
    return <p className="quiet">Choose above what the bars are of, and by which words they stand apart.</p>;
  const { categories, series } = barsOf(
    countedRows(view, table),
    value,
    columnCalled(table.plot.category),
    columnCalled(table.plot.beside),
  );
  return <CategoryChart value={value} categories={categories} series={series} />;
}
