import {
  type ConditionColumn,
  type PlannedRow,
  type Template,
  type TrialColumn,
  type TrialTable,
} from '@heuristor/contracts';
import { type SeriesRef, type Transfer, channelRef, entryIn, entryRef, nameIn } from '@heuristor/core';
import { newId } from '../../investigation/ids';

/**
 * The tables of a template over what stands here for what they speak of. Their own entries speak of columns, and stay as they are.
 * @param conditions what is asked of each run here, that of the template among it
 */
export function tablesFor(
  { trials, conditions: asked }: Pick<Template, 'trials' | 'conditions'>,
  { ids, channels }: Pick<Transfer, 'ids' | 'channels'>,
  conditions: readonly ConditionColumn[],
): TrialTable[] {
  const keyOf = (key: string): string => {
    const wanted = asked.find((one) => one.key === key);
    const found = conditions.find(({ name, kind }) => name === wanted?.name && kind === wanted.kind);
    return found?.key ?? key;
  };
  const seriesOf = (reference: SeriesRef): SeriesRef => {
    if (reference === 't') return reference;
    const name = nameIn(reference);
    if (!reference.startsWith('entry:')) return channelRef(channels.get(name) ?? name);
    // What an entry has found one by one has a key behind its id.
    const id = entryIn(reference);
    return entryRef((ids.get(id) ?? id) + name.slice(id.length));
  };
  const columnOf = (column: TrialColumn): TrialColumn => {
    switch (column.kind) {
      case 'result':
        return { ...column, entry: ids.get(column.entry) ?? column.entry };
      case 'condition':
        return { ...column, condition: keyOf(column.condition) };
      case 'value':
        return { ...column, of: seriesOf(column.of) };
      case 'run':
      case 'formula':
        return column;
    }
  };
  const plannedOf = ({ conditions: said }: PlannedRow): PlannedRow => ({
    id: newId(),
    conditions: Object.fromEntries(Object.entries(said).map(([key, value]) => [keyOf(key), value])),
  });
  const rowsOf = (rows: TrialTable['rows']): TrialTable['rows'] => {
    switch (rows.kind) {
      case 'runs':
        return rows;
      case 'values':
        return { ...rows, of: seriesOf(rows.of) };
      case 'constant':
        return { ...rows, entry: ids.get(rows.entry) ?? rows.entry };
    }
  };
  return trials.tables.map((table) => ({
    ...table,
    id: newId(),
    rows: rowsOf(table.rows),
    columns: table.columns.map(columnOf),
    planned: table.planned.map(plannedOf),
  }));
}
