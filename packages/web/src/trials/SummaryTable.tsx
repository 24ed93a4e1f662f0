import { type SummaryKey, type TrialTable, summaryKeys } from '@heuristor/contracts';
import {
  type Quantity,
  type Summary,
  type Unit,
  nothing,
  numberCell,
  scatterWords,
  summaryOf,
} from '@heuristor/core';
import { memo } from 'react';
import { Dropdown } from 'react-bootstrap';
import { CheckSquare, Square } from 'react-bootstrap-icons';
import { FixedMenu } from '../ui/FixedMenu';
import { cellText } from './cellText';
import { useTrials } from './context';
import { numberColumns } from './derivedRun';
import { countedRows } from './counted';
import { groupsOf, quantitiesOf } from './groups';
import { type TableView } from './tableView';

const titles: Readonly<Record<SummaryKey, string>> = {
  mean: 'mean',
  standardDeviation: 'sd',
  standardError: 'standard error',
  weightedMean: 'weighted mean',
  chiSquared: 'χ² per degree of freedom',
  minimum: 'min',
  maximum: 'max',
  range: 'range',
};

/** What stands in a row of the summary; empty where nobody can tell. */
function summaryText(summary: Summary, key: SummaryKey): string {
  const shown = (quantity: Quantity | null) => cellText(quantity === null ? nothing : numberCell(quantity));
  const plain = (value: number | null) =>
    value === null
      ? ''
      : cellText({
          kind: 'number',
          quantity: {
            value,
            unit: [],
            standardUncertainty: null,
            degreesOfFreedom: Infinity,
            influences: () => [],
          },
          roundTo: summary.standardDeviation === null ? null : summary.standardDeviation.value / 10 || null,
        });
  switch (key) {
    case 'chiSquared':
      return summary.reducedChiSquared === null ? '' : summary.reducedChiSquared.toPrecision(2);
    case 'minimum':
    case 'maximum':
    case 'range':
      return plain(summary[key]);
    case 'standardDeviation':
    case 'standardError':
      // An sd with its own uncertainty would be read as one of the mean.
      return summary[key] === null ? '' : Number(summary[key].value.toPrecision(2)).toString();
    default:
      return shown(summary[key]);
  }
}

/** n, mean, sd and what else is chosen of every column of numbers, for all rows or group by group. */
export const SummaryTable = memo(function SummaryTable({
  table,
  view,
}: {
  table: TrialTable;
  view: TableView;
}) {
  const trials = useTrials();
  const counted = countedRows(view, table);
  const groupColumn = view.columns.find(({ key }) => key === table.groupBy);
  const numbers = numberColumns(view.columns).filter(
    ({ column, key }) => !column.hidden && key !== table.groupBy,
  );
  const toggle = (key: SummaryKey) =>
    trials.changeTable((own) => ({
      ...own,
      summary: own.summary.includes(key)
        ? own.summary.filter((one) => one !== key)
        : summaryKeys.filter((one) => one === key || own.summary.includes(one)),
    }));
  if (numbers.length === 0 || counted.length === 0) return null;
  const summaries = groupsOf(counted, groupColumn?.key ?? null).map(({ name, rows }) => ({
    name,
    of: numbers.map(({ key, unit }) => summaryOf(quantitiesOf(rows, key), (unit ?? []) as Unit)),
  }));
  return (
    <div className="trial-summary">
      <table>
        <thead>
          <tr>
            <th scope="col" colSpan={2}>
              {groupColumn === undefined ? 'all rows' : `by ${groupColumn.title}`}
            </th>
            {numbers.map(({ key, title }) => (
              <th scope="col" className="number" key={key}>
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {summaries.flatMap(({ name, of }) => [
            <tr key={`${name} n`} className="first">
              <th scope="rowgroup">{groupColumn === undefined ? '' : name}</th>
              <th scope="row">n</th>
              {of.map(({ count }, i) => (
                <td className="number" key={numbers[i].key}>
                  {count}
                </td>
              ))}
            </tr>,
            ...table.summary.map((key) => (
              <tr key={`${name} ${key}`}>
                <th />
                <th scope="row">{titles[key]}</th>
                {of.map((summary, i) => (
                  <td
                    className="number"
                    key={numbers[i].key}
                    title={key === 'chiSquared' ? (scatterWords(summary) ?? undefined) : undefined}
                  >
                    {summaryText(summary, key)}
                  </td>
                ))}
              </tr>
            )),
          ])}
        </tbody>
      </table>
      <Dropdown autoClose="outside" drop="up">
        <Dropdown.Toggle variant="bare" className="no-caret">
          What stands here …
        </Dropdown.Toggle>
        <FixedMenu>
          {summaryKeys.map((key) => (
            <Dropdown.Item
              key={key}
              as="button"
              role="menuitemcheckbox"
              aria-checked={table.summary.includes(key)}
              onClick={() => toggle(key)}
            >
              {table.summary.includes(key) ? <CheckSquare aria-hidden /> : <Square aria-hidden />}{' '}
              {titles[key]}
            </Dropdown.Item>
          ))}
        </FixedMenu>
      </Dropdown>
    </div>
  );
});
