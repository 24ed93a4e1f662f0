import { type RecorderStatus } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../investigation/context';
import { endingWords } from './plan/planWords';
import { NextRow } from '../trials/NextRow';
import { recordingRun } from '../runs/runs';
import { fixedText } from '../ui/numberText';
import { useQuantities } from '../sensors/useQuantities';

/** The button that begins and ends a run, and what the run is doing. */
export function RecordButton() {
  const session = useInvestigation();
  const running = useDocuments(({ runs }) => recordingRun(runs));
  const next = useDocuments(({ runs }) => runs.reduce((most, { number }) => Math.max(most, number), 0) + 1);
  const recorder = useDocuments((documents) => documents.recorder);
  const end = useDocuments(({ plan }) => plan.end);
  const quantities = useQuantities();
  const isBusy = running !== undefined || recorder.phase !== 'idle';
  return (
    <>
      <Button
        variant="record"
        className={isBusy ? 'running' : ''}
        disabled={!isBusy && quantities.length === 0}
        onClick={() => void session.toggleRecording()}
      >
        <span className="record-mark" />
        {!isBusy ? 'Record' : running === undefined ? 'Cancel' : 'Stop'}
      </Button>
      <div className="status" role="status">
        {running !== undefined ? (
          <>
            <strong>
              <span className="recording-word">Recording {running.name}</span> ·{' '}
              <Elapsed since={running.startedAt} />
            </strong>
            <span className="quiet">
              {recorder.phase === 'recording' && recorder.waitsFor !== null ? (
                <>Waits for {recorder.waitsFor} · Space ends it</>
              ) : (
                <>Space stops · ends {endingWords(end, quantities)}</>
              )}
              <RowWords recorder={recorder} />
            </span>
          </>
        ) : isBusy ? (
          <>
            <strong>Run {next} is armed</strong>
            <span className="quiet">
              Space cancels
              <RowWords recorder={recorder} />
            </span>
          </>
        ) : quantities.length === 0 ? (
          <>
            <strong>No sensor yet</strong>
            <span className="quiet">Connect one, or bring in a file.</span>
          </>
        ) : (
          <>
            <strong>Run {next} is ready</strong>
            <NextRow otherwise={<span className="quiet">Space starts and stops</span>} />
          </>
        )}
      </div>
    </>
  );
}

/** Which run of a row it is. */
function RowWords({ recorder }: { recorder: RecorderStatus }) {
  if (recorder.phase === 'idle' || recorder.times === 1) return null;
  return ` · run ${recorder.number}${recorder.times === null ? '' : ` of ${recorder.times}`}`;
}

function Elapsed({ since }: { since: string }) {
  const [begun] = useState(() => Math.min(Date.now(), new Date(since).getTime()));
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 100);
    return () => clearInterval(timer);
  }, []);
  return <span className="mono">{fixedText(Math.max((now - begun) / 1000, 0), 1)} s</span>;
}
