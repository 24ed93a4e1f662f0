import { noPlannedRow, openRows } from '@heuristor/contracts';
import { type ReactNode, useEffect, useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import { useStore } from 'zustand';
import { useInvestigationDocuments, useInvestigation } from '../investigation/context';
import { FixedMenu } from '../ui/FixedMenu';
import { nextOf } from './nextOf';
import { plannedName } from './plannedName';
import { type TrialsSession } from './trialsSession';

/** Which planned row the next run fills, where another one can be chosen. @param otherwise what stands there where nothing is planned */
export function NextRow({ otherwise }: { otherwise: ReactNode }) {
  const session = useInvestigation();
  const [trials, setTrials] = useState<TrialsSession | null>(null);
  useEffect(() => {
    let isWanted = true;
    session.trials().then(
      (opened) => isWanted && setTrials(opened),
      // The page of the trials says why they cannot be opened; recording goes on without them.
      () => undefined,
    );
    return () => {
      isWanted = false;
    };
  }, [session]);
  return trials === null ? otherwise : <OpenRows trials={trials} otherwise={otherwise} />;
}

function OpenRows({ trials, otherwise }: { trials: TrialsSession; otherwise: ReactNode }) {
  const session = useInvestigation();
  const document = useStore(trials.state, (state) => state.trials);
  const runs = useInvestigationDocuments((documents) => documents.runs);
  const plan = useInvestigationDocuments((documents) => documents.plan);
  const open = openRows(document, runs);
  if (open.length === 0 || plan.practice) return otherwise;
  const next = nextOf(document, runs, plan);
  const choose = (planned: string) => void session.plan.sayOfNext({ planned });
  return (
    <Dropdown className="next-row">
      <Dropdown.Toggle variant="bare" title="The row of the trials that the next run fills">
        Next: {next === null ? 'nothing planned' : plannedName(next, plan.conditions)}
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu">
        {open.map((row) => (
          <Dropdown.Item as="button" key={row.id} active={row.id === next?.id} onClick={() => choose(row.id)}>
            {plannedName(row, plan.conditions)}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.Item as="button" active={next === null} onClick={() => choose(noPlannedRow)}>
          Nothing planned
        </Dropdown.Item>
      </FixedMenu>
    </Dropdown>
  );
}
