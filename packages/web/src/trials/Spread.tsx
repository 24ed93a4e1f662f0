import { type TrialTable } from '@heuristor/contracts';
import { compared, oneWay, oneWayWords, summaryOf } from '@heuristor/core';
import { SpreadChart } from './SpreadChart';
import { type SpreadGroup } from './spreadGroup';
import { groupsOf, quantitiesOf } from './groups';
import { type TableView } from './tableView';
import { countedRows } from './counted';

/** How a column spreads, group by group: its dots, their mean and standard deviation, and what two groups differ by. */
export function Spread({ table, view }: { table: TrialTable; view: TableView }) {
  const value = view.columns.find(({ key }) => key === table.plot.value);
  if (value === undefined || value.unit === null)
    return <p className="quiet">Choose above which column is drawn.</p>;
  const { unit } = value;
  const rows = countedRows(view, table).filter(({ cells }) => cells[value.key].kind === 'number');
  const groups = groupsOf(rows, table.plot.category)
    .filter((_, i, all) => all.length === 1 || i < all.length - 1)
    .map(({ name, rows: own }) => {
      const quantities = quantitiesOf(own, value.key);
      return {
        name: name === 'all' ? value.title : name,
        rows: own,
        quantities,
        summary: summaryOf(quantities, unit, `scatter/${name}`),
      };
    });
  const [a, b] = groups.map(({ name, summary }) => ({ name, mean: summary.mean }));
  const sentence =
    groups.length === 2 && a.mean !== null && b.mean !== null
      ? `${a.name} and ${b.name}: ${compared({ name: a.name, quantity: a.mean }, { name: b.name, quantity: b.mean }).words}`
      : groups.length > 2
        ? severalSaid(groups)
        : null;
  return (
    <>
      <SpreadChart value={value} groups={groups} look={table.plot.spread} />
      {sentence !== null && <p className="spread-says">{sentence}</p>}
    </>
  );
}

/** Whether the means of more than two groups differ, in a sentence; null where nobody can tell. */
function severalSaid(groups: readonly Pick<SpreadGroup, 'quantities'>[]): string | null {
  const found = oneWay(groups.map(({ quantities }) => Float64Array.from(quantities, ({ value }) => value)));
  return found === null ? null : oneWayWords(found);
}
