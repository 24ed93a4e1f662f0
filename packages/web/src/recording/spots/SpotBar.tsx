import { parseUnit, printedUnit } from '@heuristor/core';
import { Button } from 'react-bootstrap';
import { useStore } from 'zustand';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { useQuantities } from '../../sensors/useQuantities';
import { NextRow } from '../../trials/NextRow';
import { useSeries } from './useSeries';
import { shortText } from '../../ui/numberText';

/** The one big button of spot readings, and what is being read. */
export function SpotBar() {
  const session = useInvestigation();
  const status = useDocuments(({ spots }) => spots);
  const seconds = useDocuments(({ plan }) => plan.spot.seconds);
  const { series, columns } = useSeries();
  const quantities = useQuantities();
  const canRead = quantities.some(({ stream }) => stream.sampling === 'regular') || columns.length > 0;
  const next = (series?.spot?.rows.filter(({ removed }) => !removed).length ?? 0) + 1;
  if (status.phase === 'sweeping')
    return (
      <>
        <Button variant="act" className="big" onClick={() => void session.spots.stopSweep()}>
          Stop the sweep
        </Button>
        <div className="status" role="status">
          <strong>
            {status.doing === 'settling' ? 'Settling' : 'Reading'} at{' '}
            <span className="mono">{shortText(status.value, 6)}</span> {printedUnit(parseUnit(status.unit))}
          </strong>
          <span className="quiet">
            {status.taken} of {status.planned} taken
          </span>
        </div>
      </>
    );
  const isTaking = status.phase === 'taking';
  const how = canRead
    ? `Space or Enter takes it, averaged over ${seconds} s`
    : 'Connect one, or add a column for what you type.';
  return (
    <>
      <Button
        variant="act"
        className="big"
        disabled={isTaking || !canRead}
        onClick={() => void session.spots.takeTyped()}
      >
        {isTaking ? 'Hold still …' : 'Take reading'}
      </Button>
      <div className="status" role="status">
        <strong>
          {canRead
            ? `Reading ${next}${series === null ? ' of a new series' : ` of ${series.name}`}`
            : 'No sensor yet'}
        </strong>
        {canRead && series === null ? (
          <NextRow otherwise={<span className="quiet">{how}</span>} />
        ) : (
          <span className="quiet">{how}</span>
        )}
      </div>
    </>
  );
}

/** What was refused because it had not come to rest, and the way to take it all the same. */
export function Unsteady() {
  const session = useInvestigation();
  const unsteady = useStore(session.spots.draft, (draft) => draft.unsteady);
  if (unsteady === null) return null;
  return (
    <div className="unsteady" role="alert">
      <span>{unsteady}</span>
      <Button variant="plain" onClick={() => void session.spots.takeTyped(true)}>
        Take it anyway
      </Button>
      <Button variant="plain" onClick={() => session.spots.leaveUntaken()}>
        Cancel
      </Button>
    </div>
  );
}
