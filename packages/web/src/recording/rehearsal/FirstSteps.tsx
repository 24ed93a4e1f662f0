import { Button } from 'react-bootstrap';
import { useInvestigation } from '../../investigation/context';
import { useDevices } from '../../sensors/devices';
import { beginFirstRun, usualStandIn } from './firstRun';

/** What to do on an empty bench, in three steps. */
export function FirstSteps() {
  const session = useInvestigation();
  const standIn = useDevices(({ devices }) => usualStandIn(devices));
  return (
    <div className="empty first-steps">
      <h2>No run yet: a first one takes three steps</h2>
      <ol>
        <li>
          <strong>Connect</strong> a sensor: press Connect at the left and choose the code that stands on its
          housing.
        </li>
        <li>
          <strong>Record</strong>: press Record, or Space. The plan over the traces says how long.
        </li>
        <li>
          <strong>Mark</strong>: drag over the part that matters. What can be worked out on it is offered
          under the traces.
        </li>
      </ol>
      <p>Or bring in a file of numbers by Files below. Nothing recorded is ever overwritten.</p>
      {standIn !== null && (
        <Button
          variant="act"
          onClick={() => {
            beginFirstRun(session.id);
            void session.sensors.use(standIn.code, true);
          }}
        >
          Try it now on a simulated {standIn.stage?.title.toLowerCase() ?? 'sensor'}
        </Button>
      )}
    </div>
  );
}
