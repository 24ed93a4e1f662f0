import { type AwayRun, type Device } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { Button, ProgressBar } from 'react-bootstrap';
import { useDocuments, useInvestigation, useView } from '../../investigation/context';
import { keptWords } from './keptWords';
import { usedBy } from '../../sensors/sensors';
import { useDevices } from '../../sensors/devices';
import { LiveReading } from '../../sensors/LiveReading';
import { useQuantities } from '../../sensors/useQuantities';

/** What devices keep that were away, or record by themselves: what it is, and what can be done with it. */
export function AwayPanel() {
  const session = useInvestigation();
  const way = useDocuments(({ plan }) => plan.way);
  const devices = useDevices((state) => state.devices);
  const holding = usedBy(devices, session.id).filter(({ away }) => (away?.runs.length ?? 0) > 0);
  if (holding.length === 0 && way !== 'away') return null;
  return (
    <section className="gate" aria-label="Runs kept by devices">
      {holding.length === 0 && (
        <p className="gate-waiting">
          Nothing is kept by a device. Start one, carry it off, bring it back and fetch what it has recorded.
        </p>
      )}
      {holding.map((device) => (
        <Kept key={device.code} device={device} />
      ))}
    </section>
  );
}

function Kept({ device }: { device: Device }) {
  const runs = device.away?.runs ?? [];
  return (
    <div className="kept-runs">
      {runs.map((run) => (
        <KeptRun key={run.id} device={device} run={run} />
      ))}
    </div>
  );
}

/** The time, once a second. */
function useNow(): number {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

function KeptRun({ device, run }: { device: Device; run: AwayRun }) {
  const session = useInvestigation();
  const now = useNow();
  const [isLive, setIsLive] = useState(false);
  const isElsewhere = run.investigation !== session.id;
  const { code, model, present } = device;
  const { id, state, count, stored, isFetching, discarded } = run;
  const goesOn = state === 'recording' || state === 'waiting';
  const isPartly = stored > 0 && stored < count;
  return (
    <article className={`kept-run ${discarded ? 'discarded' : ''}`} aria-label={`Run kept by ${code}`}>
      <div className="kept-words" role="status">
        <strong>
          {model} <span className="mono">{code}</span>
        </strong>{' '}
        {discarded
          ? 'Discarded. It is forgotten when the device is prepared anew.'
          : keptWords(run, present, now)}
        {isElsewhere && !discarded && (
          <span className="quiet">
            {' '}
            {run.investigation === null
              ? 'It was prepared by another Heuristor.'
              : 'It belongs to another investigation, and is fetched there.'}
          </span>
        )}
        {isPartly && !isFetching && (
          <span className="quiet">
            {' '}
            {stored} of {count} readings are here.
          </span>
        )}
      </div>
      {isFetching ? (
        <div className="kept-progress">
          <ProgressBar
            now={count === 0 ? 0 : (100 * stored) / count}
            label={`${stored} of ${count}`}
            aria-label={`Fetching from ${code}`}
          />
          <Button variant="plain" size="sm" onClick={() => void session.away.cancel(code, id)}>
            Cancel
          </Button>
        </div>
      ) : (
        <div className="row-buttons">
          {discarded ? (
            <Button variant="plain" size="sm" onClick={() => void session.away.restore(code, id)}>
              Put it back
            </Button>
          ) : (
            !isElsewhere && (
              <>
                <Button
                  variant="act"
                  size="sm"
                  disabled={!present || state === 'waiting'}
                  onClick={() => void session.away.fetch(code, id, true)}
                >
                  {goesOn ? 'Fetch and end' : isPartly ? 'Go on fetching' : 'Fetch'}
                </Button>
                {state === 'recording' && (
                  <Button
                    variant="plain"
                    size="sm"
                    disabled={!present}
                    onClick={() => void session.away.fetch(code, id, false)}
                  >
                    Fetch, and let it go on
                  </Button>
                )}
                {present && goesOn && (
                  <Button variant="plain" size="sm" aria-pressed={isLive} onClick={() => setIsLive(!isLive)}>
                    Look live
                  </Button>
                )}
                <Button
                  variant="plain"
                  size="sm"
                  disabled={!present}
                  onClick={() => void session.away.discard(code, id)}
                >
                  Discard
                </Button>
              </>
            )
          )}
        </div>
      )}
      {isLive && <LiveOf code={code} />}
    </article>
  );
}

/** What the sensors of a device read just now, while it records by itself. */
function LiveOf({ code }: { code: string }) {
  const quantities = useQuantities().filter(
    ({ device, stream }) => device.code === code && stream.sampling === 'regular',
  );
  const isShown = useView(({ setUp }) => setUp === null);
  if (!isShown) return null;
  return (
    <div className="kept-live">
      {quantities.map(({ key, stream, index, channel }) => (
        <LiveReading
          key={key}
          handle={stream.handle}
          index={index}
          channel={channel}
          rate={stream.liveRate}
          named
        />
      ))}
    </div>
  );
}
