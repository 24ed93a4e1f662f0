import { Button, Dropdown, Form } from 'react-bootstrap';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useInvestigation } from '../investigation/context';
import { addressOf } from '../investigation/addresses';
import { runStyle } from '../runs/runStyles';
import { FixedMenu } from '../ui/FixedMenu';
import { TextField } from '../ui/TextField';
import { useTrials } from './context';
import { OutOfPlan, PlannedName, PlannedRowItems } from './PlannedRow';
import { type TrialRow } from './tableView';
import { withLeftOut, withTypedName, withoutTypedRow } from './trialsDocument';

/** Which run a row is, or what a typed row is called, with what can be done with it. */
export function RowHead({ row }: { row: TrialRow }) {
  const trials = useTrials();
  const session = useInvestigation();
  const [isAsked, setIsAsked] = useState(false);
  const seen = session.runs.find(({ id }) => id === row.run?.id);
  const label = `What to do with ${calledIn(row)}`;
  return (
    <th scope="row">
      <span className="row-head">
        {row.kind === 'planned' ? (
          <PlannedName row={row} />
        ) : row.run === null ? (
          <TextField
            label={`Name of the typed row ${row.name}`}
            value={row.name}
            placeholder="whose"
            maxLength={60}
            className="cell-field"
            onCommit={(name) => trials.changeTable((table) => withTypedName(table, row.id, name))}
          />
        ) : (
          <span className="row-name" title={row.name}>
            <span className="dot" style={{ background: runStyle(seen?.style ?? 0).paint }} aria-hidden />
            {row.run.number}
            {row.place !== null && `.${row.place + 1}`} <span className="quiet">{row.name}</span>
          </span>
        )}
        {/* Most rows that scroll by are never asked for it, and a menu that could open costs as much as the rest of a row. */}
        {isAsked ? (
          <RowMenu row={row} label={label} />
        ) : (
          <Button
            variant="bare"
            className="row-menu"
            aria-haspopup="menu"
            aria-expanded={false}
            aria-label={label}
            onClick={() => setIsAsked(true)}
            onKeyDown={(event) => {
              if (event.key !== 'ArrowDown') return;
              event.preventDefault();
              setIsAsked(true);
            }}
          >
            ⋯
          </Button>
        )}
      </span>
      {row.leftOut !== null && row.leftOut !== '' && <span className="quiet reason">{row.leftOut}</span>}
    </th>
  );
}

const calledIn = ({ run, name }: TrialRow): string =>
  run === null ? name || 'typed row' : `run ${run.number}, ${name}`;

/** What can be done with a row; it is open when it comes. */
function RowMenu({ row, label }: { row: TrialRow; label: string }) {
  const trials = useTrials();
  const session = useInvestigation();
  const navigate = useNavigate();
  const [why, setWhy] = useState('');
  const [isOpen, setIsOpen] = useState(true);
  const seen = session.runs.find(({ id }) => id === row.run?.id);
  const called = calledIn(row);
  const leaveOut = (reason: string | null) =>
    trials.changeTable((table) => withLeftOut(table, row.id, reason));
  return (
    <Dropdown show={isOpen} onToggle={setIsOpen}>
      <Dropdown.Toggle variant="bare" className="no-caret row-menu" aria-label={label} autoFocus>
        ⋯
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu">
        {row.run !== null && (
          <Dropdown.Item
            as="button"
            onClick={() => {
              if (seen !== undefined && !seen.shown) session.runActions.look(seen, { shown: true });
              session.viewing.bringToFront(row.run?.id ?? '');
              void navigate(addressOf(session.id, { path: '' }));
            }}
          >
            Show on the bench
          </Dropdown.Item>
        )}
        {row.kind === 'planned' ? (
          <PlannedRowItems row={row} />
        ) : row.leftOut === null ? (
          <Form
            className="leave-out"
            onSubmit={(event) => {
              event.preventDefault();
              leaveOut(why);
              setIsOpen(false);
            }}
          >
            <Form.Control
              size="sm"
              aria-label={`Why ${called} is left out`}
              placeholder="reason"
              maxLength={200}
              value={why}
              onChange={(event) => setWhy(event.target.value)}
            />
            <Button type="submit" variant="plain" size="sm">
              Leave out
            </Button>
          </Form>
        ) : (
          <Dropdown.Item as="button" onClick={() => leaveOut(null)}>
            Count it again
          </Dropdown.Item>
        )}
        {row.run !== null && <OutOfPlan run={row.run} />}
        {row.kind === 'typed' && (
          <Dropdown.Item
            as="button"
            onClick={() => trials.changeTable((table) => withoutTypedRow(table, row.id))}
          >
            Remove this row
          </Dropdown.Item>
        )}
      </FixedMenu>
    </Dropdown>
  );
}
