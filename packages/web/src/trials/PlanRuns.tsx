import { useState } from 'react';
import { Button, Form, Modal } from 'react-bootstrap';
import { parseUnit, printedUnit } from '@heuristor/core';
import { useInvestigationDocuments } from '../investigation/context';
import { NewCondition } from '../runs/conditions/NewCondition';
import { NumberField } from '../ui/NumberField';
import { useTrials } from './context';
import { combinations, faultOfValues, valuesTyped } from './plannedValues';
import { withPlannedRows } from './trialsDocument';

/** How many rows can be planned at once. */
const mostAtOnce = 200;

/** Plans runs: what every condition is to be, in all combinations. */
export function PlanRuns({ onClose }: { onClose: () => void }) {
  const trials = useTrials();
  const columns = useInvestigationDocuments(({ plan }) => plan.conditions);
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const [times, setTimes] = useState(1);
  const textOf = (key: string) => texts[key] ?? '';
  const isFaulty = columns.some((column) => faultOfValues(textOf(column.key), column) !== null);
  const rows = isFaulty
    ? []
    : combinations(
        columns.map((column) => ({ key: column.key, values: valuesTyped(textOf(column.key), column) })),
        times,
      );
  const tooMany = rows.length > mostAtOnce;
  return (
    <Modal show onHide={onClose} animation={false} aria-labelledby="plan-runs-title">
      <Modal.Header closeButton closeLabel="Close">
        <Modal.Title id="plan-runs-title">Plan runs</Modal.Title>
      </Modal.Header>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          if (rows.length === 0 || tooMany) return;
          trials.changeTable((table) => withPlannedRows(table, rows));
          onClose();
        }}
      >
        <Modal.Body>
          <p className="quiet">
            What each condition is to be, separated by semicolons: 0.5; 1 ± 0.001. Every combination is a row,
            which the next runs fill.
          </p>
          <div className="plan-runs">
            {columns.map((column, i) => {
              const fault = faultOfValues(textOf(column.key), column);
              return (
                <Form.Group key={column.key} controlId={`planned-${column.key}`}>
                  <Form.Label>
                    {column.name}
                    {column.kind === 'number' && column.unit !== '' && (
                      <span className="quiet"> / {printedUnit(parseUnit(column.unit))}</span>
                    )}
                  </Form.Label>
                  <Form.Control
                    autoFocus={i === 0}
                    value={textOf(column.key)}
                    maxLength={400}
                    placeholder={column.kind === 'number' ? '0.5; 1; 1.5' : 'soft; stiff'}
                    isInvalid={fault !== null}
                    aria-describedby={`planned-fault-${column.key}`}
                    onChange={({ target }) => setTexts({ ...texts, [column.key]: target.value })}
                  />
                  <Form.Control.Feedback type="invalid" id={`planned-fault-${column.key}`}>
                    {fault}
                  </Form.Control.Feedback>
                </Form.Group>
              );
            })}
            <NewCondition columns={columns} />
            <Form.Group controlId="planned-times">
              <Form.Label>Each of them</Form.Label>
              <span className="planned-times">
                <NumberField
                  id="planned-times"
                  label="How often each combination is recorded"
                  value={times}
                  check={(count) =>
                    Number.isInteger(count) && count >= 1 && count <= 20
                      ? null
                      : 'A whole number from 1 to 20.'
                  }
                  onCommit={setTimes}
                />{' '}
                {times === 1 ? 'time' : 'times'}
              </span>
            </Form.Group>
          </div>
        </Modal.Body>
        <Modal.Footer>
          {tooMany && (
            <span role="alert">
              These are {rows.length} rows; {mostAtOnce} can be planned at once.
            </span>
          )}
          <Button variant="plain" onClick={onClose}>
            Cancel
          </Button>
          <Button variant="act" type="submit" disabled={rows.length === 0 || tooMany}>
            {rows.length === 0
              ? 'Plan runs'
              : rows.length === 1
                ? 'Plan one run'
                : `Plan ${rows.length} runs`}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
