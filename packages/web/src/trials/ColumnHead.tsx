import { type TrialTable } from '@heuristor/contracts';
import { type Cell, printedUnit } from '@heuristor/core';
import { useSortable } from '@dnd-kit/sortable';
import { useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import { CheckSquare, SortDown, SortUp, Square } from 'react-bootstrap-icons';
import { FixedMenu } from '../ui/FixedMenu';
import { TextField } from '../ui/TextField';
import { UnitText } from '../ui/UnitText';
import { unitFault, unitTyped } from './columnUnits';
import { useTrials, useTrialsState } from './context';
import { type TrialRow, type ViewColumn } from './tableView';
import { withColumnChanged, withColumnMoved, withoutColumn } from './trialsDocument';

/** What a column is, with its menu: name, unit, order, and what it is plotted as. */
export function ColumnHead({ column, table }: { column: ViewColumn; table: TrialTable }) {
  const trials = useTrials();
  const [isOpen, setIsOpen] = useState(false);
  const { key, title, subtitle, unit, fault } = column;
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: key });
  const { sort, columns } = table;
  const isSorted = sort?.column === key;
  const place = columns.findIndex((one) => one.key === key);
  const change = (patch: Parameters<typeof withColumnChanged>[2]) => {
    trials.changeTable((own) => withColumnChanged(own, key, patch));
    // What was typed is there: the menu has done its work.
    setIsOpen(false);
  };
  const move = (by: number) =>
    trials.changeTable((own) => withColumnMoved(own, key, columns[place + by].key));
  const isNumber = unit !== null;
  const Sorted = sort?.isDown === true ? SortDown : SortUp;
  return (
    <th
      ref={setNodeRef}
      {...listeners}
      style={
        transform === null
          ? undefined
          : { transform: `translateX(${transform.x}px)`, transition, zIndex: isDragging ? 3 : undefined }
      }
      scope="col"
      className={isNumber ? 'number' : ''}
      aria-sort={isSorted ? (sort.isDown ? 'descending' : 'ascending') : undefined}
      title={fault ?? undefined}
    >
      <Dropdown show={isOpen} onToggle={setIsOpen}>
        <Dropdown.Toggle variant="bare" className="no-caret column-title">
          {isSorted && <Sorted aria-hidden />} {title}
          {unit !== null && unit.length > 0 && (
            <>
              {' / '}
              {unit.length > 1 && '('}
              <UnitText unit={unit} />
              {unit.length > 1 && ')'}
            </>
          )}
        </Dropdown.Toggle>
        <FixedMenu className="column-menu">
          {fault !== null && <p className="quiet">{fault}</p>}
          <div className="column-fields">
            <label>
              Name
              <TextField
                label={`Name of the column ${title}`}
                value={column.column.name}
                placeholder={title}
                maxLength={60}
                onCommit={(name) => change({ name: name.trim() })}
              />
            </label>
            {column.column.kind === 'formula' && (
              <label>
                Formula
                <TextField
                  label={`Formula of the column ${title}`}
                  value={column.column.formula}
                  maxLength={500}
                  className="mono"
                  onCommit={(formula) => change({ formula })}
                />
              </label>
            )}
            {isNumber && (
              <label>
                Unit
                <TextField
                  label={`Unit of the column ${title}`}
                  value={column.column.unit}
                  placeholder={printedUnit(unit) || 'none'}
                  maxLength={40}
                  check={(text) => unitFault(text, unit)}
                  onCommit={(text) => change({ unit: unitTyped(text) })}
                />
              </label>
            )}
          </div>
          <Dropdown.Item
            as="button"
            onClick={() => trials.changeTable((own) => ({ ...own, sort: { column: key, isDown: false } }))}
          >
            Sort up
          </Dropdown.Item>
          <Dropdown.Item
            as="button"
            onClick={() => trials.changeTable((own) => ({ ...own, sort: { column: key, isDown: true } }))}
          >
            Sort down
          </Dropdown.Item>
          {isSorted && (
            <Dropdown.Item as="button" onClick={() => trials.changeTable((own) => ({ ...own, sort: null }))}>
              In the order of the runs
            </Dropdown.Item>
          )}
          <Dropdown.Divider />
          {isNumber && (
            <>
              <Dropdown.Item as="button" onClick={() => trials.plotting.putAcross(key)}>
                Plot along the horizontal axis
              </Dropdown.Item>
              <Dropdown.Item as="button" onClick={() => trials.plotting.putUpright(key)}>
                Plot upright
              </Dropdown.Item>
            </>
          )}
          <Dropdown.Item
            as="button"
            onClick={() =>
              trials.changeTable((own) => ({ ...own, groupBy: own.groupBy === key ? null : key }))
            }
          >
            {table.groupBy === key ? 'Sum up all rows together' : `Sum up by ${title}`}
          </Dropdown.Item>
          <OnlyWords column={column} table={table} />
          <Dropdown.Divider />
          <Dropdown.Item as="button" disabled={place <= 0} onClick={() => move(-1)}>
            Move to the left
          </Dropdown.Item>
          <Dropdown.Item as="button" disabled={place >= columns.length - 1} onClick={() => move(1)}>
            Move to the right
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={() => change({ hidden: true })}>
            Hide
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={() => trials.changeTable((own) => withoutColumn(own, key))}>
            Remove
          </Dropdown.Item>
        </FixedMenu>
      </Dropdown>
      {subtitle !== '' && <span className="subtitle">{subtitle}</span>}
    </th>
  );
}

/** More words than this are nothing to choose from in a menu. */
const mostWords = 12;

/** Shows only rows with some of the words of a column; rows that are not shown do not count either. */
function OnlyWords({ column: { key, title }, table }: { column: ViewColumn; table: TrialTable }) {
  const trials = useTrials();
  const rows = useTrialsState(({ view }) => view?.rows ?? noRows);
  const words = [...new Set(rows.flatMap(({ cells }) => wordOf(cells[key])))];
  const chosen = table.only?.column === key ? table.only.words : null;
  if (words.length < 2 || words.length > mostWords) return null;
  const choose = (next: readonly string[] | null) =>
    trials.changeTable((own) => ({
      ...own,
      only: next === null || next.length === 0 ? null : { column: key, words: [...next] },
    }));
  const toggle = (word: string) => {
    const present = chosen ?? words;
    choose(present.includes(word) ? present.filter((one) => one !== word) : [...present, word]);
  };
  return (
    <>
      <Dropdown.Divider />
      <Dropdown.Header>Only rows whose {title} is</Dropdown.Header>
      {words.map((word) => {
        const isShown = chosen?.includes(word) ?? true;
        return (
          <Dropdown.Item
            key={word}
            as="button"
            role="menuitemcheckbox"
            aria-checked={isShown}
            onClick={() => toggle(word)}
          >
            {isShown ? <CheckSquare aria-hidden /> : <Square aria-hidden />} {word}
          </Dropdown.Item>
        );
      })}
      {chosen !== null && (
        <Dropdown.Item as="button" onClick={() => choose(null)}>
          All rows
        </Dropdown.Item>
      )}
    </>
  );
}

const noRows: readonly TrialRow[] = [];

const wordOf = (cell: Cell | undefined): string[] => (cell?.kind === 'word' ? [cell.text] : []);
