import { type Run, fillingRuns } from '@heuristor/contracts';
import { Dropdown } from 'react-bootstrap';
import { useInvestigationDocuments, useInvestigation } from '../investigation/context';
import { presentRuns } from '../runs/runs';
import { useShownTable, useTrials, useTrialsState } from './context';
import { nextOf } from './nextOf';
import { type TrialRow } from './tableView';
import { withoutPlannedRow } from './trialsDocument';

/** A row that is not recorded yet, and whether it is the one that comes. */
export function PlannedName({ row }: { row: TrialRow }) {
  const trials = useTrialsState((state) => state.trials);
  const next = useInvestigationDocuments(({ runs, plan }) => nextOf(trials, runs, plan)?.id === row.id);
  return (
    <span className="row-name quiet" title={row.name}>
      <span className="dot hollow" aria-hidden />
      {next ? 'next' : 'planned'}
    </span>
  );
}

/** What can be done with a row that is planned. */
export function PlannedRowItems({ row }: { row: TrialRow }) {
  const trials = useTrials();
  const session = useInvestigation();
  const table = useShownTable();
  const runs = useInvestigationDocuments((documents) => documents.runs);
  const filling = new Set([...fillingRuns(runs).values()].map(({ id }) => id));
  const free = presentRuns(runs).filter(
    ({ id, practice, state }) => !practice && state !== 'recording' && !filling.has(id),
  );
  const planned = table?.planned.find(({ id }) => id === row.id);
  if (planned === undefined) return null;
  return (
    <>
      <Dropdown.Item as="button" onClick={() => void session.plan.sayOfNext({ planned: row.id })}>
        Record this one next
      </Dropdown.Item>
      <Dropdown.Item as="button" onClick={() => trials.changeTable((own) => withoutPlannedRow(own, row.id))}>
        Remove this row
      </Dropdown.Item>
      {free.length > 0 && (
        <>
          <Dropdown.Divider />
          <Dropdown.Header>It was recorded as</Dropdown.Header>
          {free.map((run) => (
            <Dropdown.Item
              as="button"
              key={run.id}
              onClick={() =>
                void session.runActions.change(run, { planned: row.id, conditions: planned.conditions })
              }
            >
              {run.number} · {run.name}
            </Dropdown.Item>
          ))}
        </>
      )}
    </>
  );
}

/** Makes a planned row open again, whose run is kept as one that was not planned. */
export function OutOfPlan({ run }: { run: Run }) {
  const session = useInvestigation();
  const tables = useTrialsState(({ trials }) => trials.tables);
  const isPlanned = tables.some(({ planned }) => planned.some(({ id }) => id === run.planned));
  if (!isPlanned) return null;
  return (
    <Dropdown.Item as="button" onClick={() => void session.runActions.change(run, { planned: null })}>
      Take it out of the plan
    </Dropdown.Item>
  );
}
