import { type SeriesRef } from '@heuristor/core';
import { memo } from 'react';
import { Dropdown } from 'react-bootstrap';
import { FixedMenu } from '../../ui/FixedMenu';
import { useDocuments, useFrontRun, useSession } from '../../investigation/context';
import { laidRegion } from '../regions/regions';
import { shownRuns } from '../../runs/runs';
import { type AxisInterval } from '../../workers/protocol';

/** What can be set aside about a region: what lies in it, what lies outside, outliers. */
export const AsideMenu = memo(function AsideMenu({ of, region }: { of: SeriesRef; region: string }) {
  const session = useSession();
  const front = useFrontRun();
  const runs = useDocuments((documents) => documents.runs);
  if (front === undefined) return null;
  const shown = shownRuns(runs);
  const { asides } = session;
  /** Does something with the region as it lies now; while it is dragged, this menu is not made anew. */
  const here = (act: (interval: AxisInterval) => Promise<void>) => () => {
    const entry = session.workings.entries.find(({ id }) => id === region);
    const outcome = session.picture.getState().outcomes[front.id]?.[region];
    const laid = entry?.kind === 'region' ? laidRegion(entry, outcome, front.id) : null;
    if (laid !== null) void act(laid);
  };
  return (
    <Dropdown>
      <Dropdown.Toggle variant="bare">set aside</Dropdown.Toggle>
      <FixedMenu>
        <Dropdown.Header>Of {front.name}</Dropdown.Header>
        <Dropdown.Item as="button" onClick={here((interval) => asides.inside([front], of, interval))}>
          The readings in here
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={here((interval) => asides.outside([front], of, interval))}>
          All but those in here
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={here((interval) => asides.suggest(front, of, interval))}>
          Outliers in this region …
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => session.viewing.setHandMode('circle')}>
          What I draw around …
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={here((interval) => asides.back([front], of, interval))}>
          Count those in here again
        </Dropdown.Item>
        {shown.length > 1 && (
          <>
            <Dropdown.Divider />
            <Dropdown.Header>Of all runs that are shown</Dropdown.Header>
            <Dropdown.Item as="button" onClick={here((interval) => asides.inside(shown, of, interval))}>
              The readings in here
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={here((interval) => asides.outside(shown, of, interval))}>
              All but those in here
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={here((interval) => asides.back(shown, of, interval))}>
              Count those in here again
            </Dropdown.Item>
          </>
        )}
      </FixedMenu>
    </Dropdown>
  );
});
