import { type RecorderStatus } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import {
  ArrowClockwise,
  ArrowCounterclockwise,
  ArrowsAngleExpand,
  Icon123 as DigitsIcon,
  LayoutSidebar,
  LayoutSidebarReverse,
  SkipBackward,
  Table as TableIcon,
} from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useSession, useView } from '../session/context';
import { endingWords } from '../session/planWords';
import { recordingRun } from '../session/runs';
import { AwayLine } from './away/AwayLine';
import { PaceLine } from './pace/PaceLine';
import { PlanLine } from './PlanLine';
import { toggleSide, useSides } from './SideColumn';
import { SpotBar } from './spots/SpotBar';
import { SpotLine } from './spots/SpotLine';
import { TraceMenu } from './TraceMenu';
import { useQuantities } from './useQuantities';
import { fixedText } from '../ui/numberText';

export function RecorderBar() {
  const running = useDocuments(({ runs }) => recordingRun(runs));
  const recorder = useDocuments((documents) => documents.recorder);
  const isBusy = running !== undefined || recorder.phase !== 'idle';
  const way = useDocuments(({ plan }) => plan.way);
  const isReading = useDocuments(({ spots }) => spots.phase !== 'idle');
  const isSpot = way === 'spot' && !isBusy;
  return (
    <>
      <div className="recorder">
        {isSpot ? <SpotBar /> : way === 'away' && !isBusy ? <AwayWords /> : <RecordButton />}
        <Tools />
      </div>
      {isSpot ? (
        <SpotLine locked={isReading} />
      ) : way === 'pace' ? (
        <PaceLine locked={isBusy} />
      ) : way === 'away' && !isBusy ? (
        <AwayLine locked={isReading} />
      ) : (
        <PlanLine locked={isBusy} />
      )}
    </>
  );
}

/** The button that begins and ends a run, and what the run is doing. */
function RecordButton() {
  const session = useSession();
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
              Space stops · ends {endingWords(end, quantities)}
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
            <span className="quiet">Space starts and stops</span>
          </>
        )}
      </div>
    </>
  );
}

/** Nothing is recorded here meanwhile: the device does it. */
function AwayWords() {
  return (
    <div className="status" role="status">
      <strong>A device records by itself</strong>
      <span className="quiet">Once it is started it may be carried off, and this page closed.</span>
    </div>
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

function Tools() {
  const session = useSession();
  const isFramed = useView(({ sight, scales }) => sight === null && Object.keys(scales).length === 0);
  const canGoBack = useStore(session.looking.state, (state) => state.canGoBack);
  const saving = useStore(session.saver.state, ({ phase }) => phase);
  const hasTable = useStore(session.table.state, ({ isOpen }) => isOpen);
  const steps = useStore(session.history.state);
  const { left, right } = useSides(useShallow((state) => ({ left: state.left, right: state.right })));
  return (
    <div className="tools">
      <Button
        variant="plain"
        disabled={isFramed}
        onClick={() => session.frameAll()}
        title="Show all data (F)"
      >
        <ArrowsAngleExpand aria-hidden /> <span className="wide-word">Frame data</span>
      </Button>
      <Button
        variant="plain"
        aria-label="Look as before"
        title="One step back of the view (B)"
        disabled={!canGoBack}
        onClick={() => session.looking.back()}
      >
        <SkipBackward aria-hidden />
      </Button>
      <TraceMenu />
      <Button
        variant="plain"
        aria-label="Table of numbers"
        title="Table of numbers (T)"
        aria-pressed={hasTable}
        onClick={() => session.table.toggle()}
      >
        <TableIcon aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Large digits"
        title="Large digits (D)"
        onClick={() => session.view.setState({ digits: [] })}
      >
        <DigitsIcon aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Undo"
        title={`Undo${steps.undo === null ? '' : `: ${steps.undo}`} (Ctrl Z)`}
        disabled={steps.undo === null}
        onClick={() => session.history.undo()}
      >
        <ArrowCounterclockwise aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Redo"
        title={`Redo${steps.redo === null ? '' : `: ${steps.redo}`} (Ctrl Shift Z)`}
        disabled={steps.redo === null}
        onClick={() => session.history.redo()}
      >
        <ArrowClockwise aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Sensors and plan: show or fold away"
        title="Sensors and plan"
        aria-pressed={left}
        onClick={() => toggleSide('left')}
      >
        <LayoutSidebar aria-hidden />
      </Button>
      <Button
        variant="plain"
        aria-label="Workings: show or fold away"
        title="Workings"
        aria-pressed={right}
        onClick={() => toggleSide('right')}
      >
        <LayoutSidebarReverse aria-hidden />
      </Button>
      <span className="visually-hidden" data-testid="saving">
        {saving === 'clean' ? 'saved' : saving === 'offline' || saving === 'refused' ? 'not saved' : 'saving'}
      </span>
    </div>
  );
}
