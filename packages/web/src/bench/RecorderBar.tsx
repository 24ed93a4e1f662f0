import { useEffect, useState } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { presentRuns, recordingRun, redo, toggleRecording, undo, useBench } from '../stores/bench';
import { useDevices } from '../stores/devices';
import { useSaving } from '../stores/saving';
import { useWorkings } from '../stores/workings';
import { setHorizontal, toggleTrace, tracesShown } from './edits';
import { abscissaOfRuns, namesOf, seriesChoices } from './names';

export function RecorderBar() {
  const runs = useBench((state) => state.runs);
  const plan = useBench((state) => state.plan);
  const ready = useDevices((state) => state.devices).filter((device) => device.connected && device.present);
  const running = recordingRun(runs);
  const next = runs.reduce((most, { number }) => Math.max(most, number), 0) + 1;
  const rates = [...new Set(ready.map(({ rate }) => `${rate} Hz`))].join(', ');
  const length = plan.lengthSeconds === null ? 'until stopped' : `${plan.lengthSeconds} s`;
  return (
    <div className="recorder">
      <button
        className={`record-button ${running === undefined ? '' : 'running'}`}
        disabled={running === undefined && ready.length === 0}
        onClick={() => void toggleRecording()}
      >
        <span className="mark" />
        {running === undefined ? 'Record' : 'Stop'}
      </button>
      <div className="status" role="status">
        {running !== undefined ? (
          <>
            <strong>
              <span className="text-danger-emphasis">Recording {running.name}</span> ·{' '}
              <Elapsed since={running.startedAt} />
            </strong>
            <span className="quiet">Space stops · {length}</span>
          </>
        ) : ready.length === 0 ? (
          <>
            <strong>No sensor yet</strong>
            <span className="quiet">Connect one at the left, or bring in a file.</span>
          </>
        ) : (
          <>
            <strong>Run {next} is ready</strong>
            <span className="quiet">
              Space starts and stops · {ready.length} {ready.length === 1 ? 'sensor' : 'sensors'} · {rates} ·{' '}
              {length}
            </span>
          </>
        )}
      </div>
      <Tools />
    </div>
  );
}

function Elapsed({ since }: { since: string }) {
  const [begun] = useState(() => Math.min(Date.now(), new Date(since).getTime()));
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 100);
    return () => clearInterval(timer);
  }, []);
  return <span className="mono">{Math.max((now - begun) / 1000, 0).toFixed(1)} s</span>;
}

function Tools() {
  const runs = useBench((state) => state.runs);
  const viewport = useBench((state) => state.viewport);
  const workings = useWorkings((state) => state.workings);
  const saving = useSaving((state) => state.state);
  const nameOf = namesOf(workings, abscissaOfRuns(runs));
  const choices = seriesChoices(runs, workings);
  const shown = tracesShown();
  const some = presentRuns(runs).length > 0;
  return (
    <div className="tools">
      <Button
        variant="plain"
        disabled={viewport === null}
        onClick={() => useBench.setState({ viewport: null })}
        title="Show all data (F)"
      >
        <i className="bi bi-arrows-angle-expand" aria-hidden /> Frame data
      </Button>
      <Dropdown align="end">
        <Dropdown.Toggle variant="plain" className="no-caret" disabled={!some}>
          Traces
        </Dropdown.Toggle>
        <Dropdown.Menu>
          <Dropdown.Header>Stacked</Dropdown.Header>
          {choices
            .filter((choice) => choice !== workings.horizontal)
            .map((choice) => (
              <Dropdown.Item
                key={choice}
                as="button"
                onClick={() => toggleTrace(choice)}
                role="menuitemcheckbox"
                aria-checked={shown.includes(choice)}
              >
                <i className={`bi ${shown.includes(choice) ? 'bi-check-square' : 'bi-square'}`} aria-hidden />{' '}
                {nameOf(choice)}
              </Dropdown.Item>
            ))}
          <Dropdown.Divider />
          <Dropdown.Header>Against</Dropdown.Header>
          {(['t', ...choices] as const).map((choice) => (
            <Dropdown.Item
              key={choice}
              as="button"
              onClick={() => setHorizontal(choice)}
              role="menuitemradio"
              aria-checked={choice === workings.horizontal}
            >
              <i
                className={`bi ${choice === workings.horizontal ? 'bi-record-circle' : 'bi-circle'}`}
                aria-hidden
              />{' '}
              {nameOf(choice)}
            </Dropdown.Item>
          ))}
        </Dropdown.Menu>
      </Dropdown>
      <Button variant="plain" aria-label="Undo" title="Undo (Ctrl Z)" onClick={undo}>
        <i className="bi bi-arrow-counterclockwise" aria-hidden />
      </Button>
      <Button variant="plain" aria-label="Redo" title="Redo (Ctrl Shift Z)" onClick={redo}>
        <i className="bi bi-arrow-clockwise" aria-hidden />
      </Button>
      <span className="visually-hidden" data-testid="saving">
        {saving}
      </span>
    </div>
  );
}
