import { channelRef } from '@heuristor/core';
import { Dropdown } from 'react-bootstrap';
import { FixedMenu } from '../ui/FixedMenu';
import { useTrials, useTrialsState } from './context';
import { straightenings } from './straightenings';

/** Axes on which a curve becomes a line. */
export function Straighten() {
  const trials = useTrials();
  const view = useTrialsState((state) => state.view);
  const upright = trials.plotting.upright;
  const across = view?.columns.find(({ key }) => channelRef(key) === trials.plotting.across);
  const y = view?.columns.find(({ key }) => key === upright);
  if (y === undefined || across === undefined) return null;
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="plain">Straighten</Dropdown.Toggle>
      <FixedMenu>
        {straightenings(across, y).map((one) => (
          <Dropdown.Item as="button" key={one.title} onClick={() => trials.plotting.straighten(one)}>
            {one.title} <span className="quiet">{one.says}</span>
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}
