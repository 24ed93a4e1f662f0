import { Dropdown } from 'react-bootstrap';
import { request } from '../api/client';
import { attempt, changePlan, recordingRun, useBench } from '../stores/bench';
import { useDevices } from '../stores/devices';
import { NumberField } from '../ui/NumberField';
import { SensorCard } from './SensorCard';

export function SensorColumn() {
  const devices = useDevices((state) => state.devices);
  const recording = useBench((state) => recordingRun(state.runs) !== undefined);
  const connected = devices.filter((device) => device.connected);
  const others = devices.filter((device) => !device.connected && device.present);
  return (
    <aside className="side left" aria-label="Sensors">
      <div className="side-head">
        <h2>Sensors</h2>
        <Dropdown align="end">
          <Dropdown.Toggle variant="plain" className="no-caret">
            <i className="bi bi-plus-lg" aria-hidden /> Connect
          </Dropdown.Toggle>
          <Dropdown.Menu>
            {others.length === 0 && (
              <Dropdown.ItemText className="quiet">No other sensor is on the link.</Dropdown.ItemText>
            )}
            {others.map(({ code, model, stage }) => (
              <Dropdown.Item
                key={code}
                disabled={recording}
                onClick={() =>
                  void attempt(() =>
                    request('PATCH', `/devices/${encodeURIComponent(code)}`, { connected: true }),
                  )
                }
              >
                {model} <span className="mono">{code}</span>
                {stage !== null && <div className="quiet small">{stage.title}</div>}
              </Dropdown.Item>
            ))}
          </Dropdown.Menu>
        </Dropdown>
      </div>
      {connected.length === 0 && (
        <p className="quiet">
          No sensor is connected. Press Connect and choose the one whose code stands on the housing in front
          of you.
        </p>
      )}
      {connected.map((device) => (
        <SensorCard key={device.code} device={device} recording={recording} />
      ))}
      <PlanCard recording={recording} />
    </aside>
  );
}

function PlanCard({ recording }: { recording: boolean }) {
  const { lengthSeconds } = useBench((state) => state.plan);
  return (
    <>
      <div className="side-head">
        <h2>Plan</h2>
      </div>
      <section className="card-sheet" aria-label="Plan of the next run">
        <fieldset disabled={recording} className="pairs">
          <label htmlFor="plan-ends">Ends</label>
          <select
            id="plan-ends"
            className="form-select"
            value={lengthSeconds === null ? 'open' : 'length'}
            onChange={(event) => void changePlan({ lengthSeconds: event.target.value === 'open' ? null : 8 })}
          >
            <option value="length">after a time</option>
            <option value="open">when stopped</option>
          </select>
          {lengthSeconds !== null && (
            <>
              <label htmlFor="plan-length">Length</label>
              <span className="with-unit">
                <NumberField
                  id="plan-length"
                  label="Length of the run in seconds"
                  value={lengthSeconds}
                  onCommit={(value) => void changePlan({ lengthSeconds: value })}
                />
                s
              </span>
            </>
          )}
        </fieldset>
      </section>
    </>
  );
}
