import { useDeferredValue, useState } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { PlusLg, XLg } from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { SavedWord, StepButtons } from '../investigation/StepButtons';
import { FixedMenu } from '../ui/FixedMenu';
import { NameField } from '../ui/NameField';
import { ColumnChooser } from './ColumnChooser';
import { FillButton } from './FillButton';
import { FirstTables } from './FirstTables';
import { AcrossLine } from './AcrossLine';
import { PlanRuns } from './PlanRuns';
import { RowsMenu } from './RowsMenu';
import { TakeRuns } from './TakeRuns';
import { SummaryTable } from './SummaryTable';
import { TableGrid } from './TableGrid';
import { useShownTable, useTrials, useTrialsState } from './context';
import { copyTable } from './copyTable';
import { isCountedIn } from './counted';
import { withTypedRow, withoutTable } from './trialsDocument';

/** The table with what stands over and under it. */
export function TablePane() {
  const trials = useTrials();
  const view = useTrialsState((state) => state.view);
  const table = useShownTable();
  // What is typed into a long table stands there first, and is summed up then.
  const summed = { view: useDeferredValue(view), table: useDeferredValue(table) };
  const [isPlanning, setIsPlanning] = useState(false);
  const [isTaking, setIsTaking] = useState(false);
  if (table === undefined) return null;
  return (
    <section className="trials-pane" aria-label="Table">
      <header className="trials-tools">
        <TableTabs />
        <span className="spring" />
        <RowsMenu />
        <ColumnChooser />
        <FillButton part="table" other="plot" />
      </header>
      <AcrossLine />
      {view !== null && view.columns.length === 0 ? (
        <p className="quiet">
          This table has no column yet. Add results, conditions or a formula with “Column”.
        </p>
      ) : (
        view !== null && <TableGrid table={table} view={view} />
      )}
      {view !== null && (
        <footer className="trials-foot">
          <Button variant="plain" onClick={() => trials.changeTable((own) => withTypedRow(own, ''))}>
            <PlusLg aria-hidden /> Row
          </Button>
          <Button variant="plain" onClick={() => setIsPlanning(true)}>
            Plan …
          </Button>
          <Button variant="plain" onClick={() => setIsTaking(true)}>
            Take in …
          </Button>
          <Button variant="plain" onClick={() => void copyTable(view, isCountedIn(table))}>
            Copy
          </Button>
          <StepButtons />
          <SavedWord saver={trials.saver} />
          <RowCount />
        </footer>
      )}
      {summed.view !== null && summed.table !== undefined && (
        <SummaryTable table={summed.table} view={summed.view} />
      )}
      {isTaking && <TakeRuns onClose={() => setIsTaking(false)} />}
      {isPlanning && <PlanRuns onClose={() => setIsPlanning(false)} />}
    </section>
  );
}

/** How many rows there are, and what is still being worked out. */
function RowCount() {
  const trials = useTrials();
  const view = useTrialsState((state) => state.view);
  const waiting = useStore(trials.outcomes, (state) => state.waiting);
  if (view === null) return null;
  const left = view.rows.filter(({ leftOut }) => leftOut !== null).length;
  const planned = view.rows.filter(({ kind }) => kind === 'planned').length;
  const total = view.rows.length - planned;
  return (
    <span className="quiet" role="status">
      {total} {total === 1 ? 'row' : 'rows'}
      {left > 0 && `, ${left} left out`}
      {planned > 0 && `, ${planned} planned`}
      {waiting > 0 && `; ${waiting} ${waiting === 1 ? 'run is' : 'runs are'} being worked out …`}
    </span>
  );
}

function TableTabs() {
  const trials = useTrials();
  const tables = useTrialsState((state) => state.trials.tables);
  const open = useTrialsState((state) => state.open);
  return (
    <nav className="page-tabs trial-tabs" aria-label="Tables">
      {tables.map(({ id, name }) =>
        id === open ? (
          <span key={id} className="page-tab current" aria-current="page">
            <NameField
              label="Name of this table"
              value={name === '' ? 'table' : name}
              onCommit={(typed) => trials.changeTable((table) => ({ ...table, name: typed.slice(0, 60) }))}
            />
            <Button
              variant="bare"
              aria-label={`Remove the table ${name}`}
              title="Remove this table"
              onClick={() => trials.change((all) => withoutTable(all, id))}
            >
              <XLg aria-hidden />
            </Button>
          </span>
        ) : (
          <button key={id} className="page-tab" onClick={() => trials.openTable(id)}>
            {name === '' ? 'table' : name}
          </button>
        ),
      )}
      <Dropdown>
        <Dropdown.Toggle variant="bare" className="no-caret" aria-label="New table" title="New table">
          <PlusLg aria-hidden />
        </Dropdown.Toggle>
        <FixedMenu className="p-3 new-table">
          <FirstTables isShort />
          <Button variant="plain" onClick={() => trials.addTable({})}>
            Empty table
          </Button>
        </FixedMenu>
      </Dropdown>
    </nav>
  );
}
