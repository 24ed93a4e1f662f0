import { type SeriesRef } from '@heuristor/core';
import { Dropdown } from 'react-bootstrap';
import { useDocuments, useFrontRun, useSession } from '../session/context';
import { shownRuns } from '../session/runs';
import { type Stretch } from '../workers/protocol';

/** What can be set aside about a region: what lies in it, what lies outside, what stands off. */
export function AsideMenu({ of, stretch }: { of: SeriesRef; stretch: Stretch }) {
  const session = useSession();
  const front = useFrontRun();
  const runs = useDocuments((documents) => documents.runs);
  if (front === undefined) return null;
  const shown = shownRuns(runs);
  const { asides } = session;
  return (
    <Dropdown>
      <Dropdown.Toggle variant="bare">set aside</Dropdown.Toggle>
      <Dropdown.Menu>
        <Dropdown.Header>Of {front.name}</Dropdown.Header>
        <Dropdown.Item as="button" onClick={() => void asides.inside([front], of, stretch)}>
          The readings in here
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => void asides.outside([front], of, stretch)}>
          All but those in here
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => void asides.suggest(front, of, stretch)}>
          What stands off in here …
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => void asides.back([front], of, stretch)}>
          Take back what is aside in here
        </Dropdown.Item>
        {shown.length > 1 && (
          <>
            <Dropdown.Divider />
            <Dropdown.Header>Of all runs that are shown</Dropdown.Header>
            <Dropdown.Item as="button" onClick={() => void asides.inside(shown, of, stretch)}>
              The readings in here
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => void asides.outside(shown, of, stretch)}>
              All but those in here
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => void asides.back(shown, of, stretch)}>
              Take back what is aside in here
            </Dropdown.Item>
          </>
        )}
      </Dropdown.Menu>
    </Dropdown>
  );
}
