import { parseUnit, printedUnit } from '@heuristor/core';
import { type KeyboardEvent } from 'react';
import { Modal } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { presentRuns } from '../runs';
import { ConditionField, GroupField, RemarkField } from './ConditionField';
import { saidOfRun } from './saidOf';

/** What was said of every run, row by row. Enter and the upright arrows go down and up a column. */
export function ConditionsTable({ onClose }: { onClose: () => void }) {
  const session = useInvestigation();
  const columns = useDocuments(({ plan }) => plan.conditions);
  const runs = presentRuns(useDocuments((documents) => documents.runs));
  const onKeyDown = (event: KeyboardEvent<HTMLTableElement>) => {
    const step = event.key === 'Enter' || event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    const cell = event.target instanceof HTMLElement ? event.target.closest('td') : null;
    const row = cell?.closest('tr');
    const next = step === 1 ? row?.nextElementSibling : step === -1 ? row?.previousElementSibling : null;
    if (!(next instanceof HTMLTableRowElement) || cell == null) return;
    event.preventDefault();
    next.cells[cell.cellIndex].querySelector('input')?.focus();
  };
  return (
    <Modal show onHide={onClose} size="xl" animation={false} scrollable aria-labelledby="conditions-title">
      <Modal.Header closeButton closeLabel="Close">
        <Modal.Title id="conditions-title">Conditions of all runs</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {runs.length === 0 ? (
          <p className="quiet">There is no run yet.</p>
        ) : (
          <div className="conditions-table">
            <table onKeyDown={onKeyDown}>
              <thead>
                <tr>
                  <th scope="col">Run</th>
                  {columns.map(({ key, name, kind, unit }) => (
                    <th scope="col" key={key}>
                      {name}
                      {kind === 'number' && unit !== '' && (
                        <span className="quiet"> / {printedUnit(parseUnit(unit))}</span>
                      )}
                    </th>
                  ))}
                  <th scope="col">Group</th>
                  <th scope="col">Note</th>
                </tr>
              </thead>
              <tbody>
                {runs.map((run) => {
                  const said = saidOfRun(session, run);
                  return (
                    <tr key={run.id}>
                      <th scope="row">
                        {run.number} · {run.name}
                      </th>
                      {columns.map((column) => (
                        <td key={column.key}>
                          <ConditionField column={column} said={said} />
                        </td>
                      ))}
                      <td>
                        <GroupField said={said} />
                      </td>
                      <td className="wide">
                        <RemarkField said={said} />
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </div>
        )}
      </Modal.Body>
    </Modal>
  );
}
