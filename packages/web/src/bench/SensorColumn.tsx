import { type Plan } from '@heuristor/contracts';
import { Dropdown, Form } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { request } from '../api/client';
import { attempt } from '../session/attempt';
import { useDocuments, useSession } from '../session/context';
import { recordingRun } from '../session/runs';
import { useDevices } from '../stores/devices';
import { NumberField } from '../ui/NumberField';
import { SensorCard } from './SensorCard';

const pathOf = (code: string) => `/devices/${encodeURIComponent(code)}`;

export function SensorColumn() {
  const devices = useDevices((state) => state.devices);
  const recording = useDocuments(({ runs }) => recordingRun(runs) !== undefined);
  const connected = devices.filter((device) => device.connected);
  const waiting = devices.filter((device) => device.waiting);
  const others = devices.filter((device) => !device.connected && device.present && !device.waiting);
  return (
    <>
      <div className="side-head titled">
        <h2>Sensors</h2>
        <Dropdown align="end">
          <Dropdown.Toggle variant="plain" className="no-caret">
            <PlusLg aria-hidden /> Connect
          </Dropdown.Toggle>
          <Dropdown.Menu popperConfig={{ strategy: 'fixed' }} className="tall-menu">
            {others.length === 0 && waiting.length === 0 && (
              <Dropdown.ItemText className="quiet">No other sensor is on the link.</Dropdown.ItemText>
            )}
            {others.map(({ code, model, stage }) => (
              <Dropdown.Item
                key={code}
                disabled={recording}
                onClick={() => void attempt(() => request('PATCH', pathOf(code), { connected: true }))}
              >
                {model} <span className="mono">{code}</span>
                {stage !== null && <div className="quiet small">{stage.title}</div>}
              </Dropdown.Item>
            ))}
            {waiting.length > 0 && <Dropdown.Header>On another machine</Dropdown.Header>}
            {waiting.map(({ code, model }) => (
              <Dropdown.Item
                key={code}
                onClick={() => void attempt(() => request('POST', `${pathOf(code)}/admission`))}
              >
                Let in {model} <span className="mono">{code}</span>
                <div className="quiet small">Look at the code on its housing first.</div>
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
    </>
  );
}

const usualLength = 8;

function lengthFault(seconds: number): string | null {
  if (seconds < 0.1) return 'A run lasts at least 0.1 s.';
  return seconds > 86_400 ? 'A run lasts at most a day, 86400 s.' : null;
}

function PlanCard({ recording }: { recording: boolean }) {
  const session = useSession();
  const lengthSeconds = useDocuments(({ plan }) => plan.lengthSeconds);
  const change = (patch: Pick<Plan, 'lengthSeconds'>) => void session.changePlan(patch);
  return (
    <>
      <div className="side-head">
        <h2>Plan</h2>
      </div>
      <section className="card-sheet" aria-label="Plan of the next run">
        <fieldset disabled={recording} className="pairs">
          <Form.Label htmlFor="plan-ends">Ends</Form.Label>
          <Form.Select
            id="plan-ends"
            value={lengthSeconds === null ? 'open' : 'length'}
            onChange={(event) =>
              change({ lengthSeconds: event.target.value === 'open' ? null : usualLength })
            }
          >
            <option value="length">after a time</option>
            <option value="open">when stopped</option>
          </Form.Select>
          {lengthSeconds !== null && (
            <>
              <Form.Label htmlFor="plan-length">Length</Form.Label>
              <span className="with-unit">
                <NumberField
                  id="plan-length"
                  label="Length of the run in seconds"
                  value={lengthSeconds}
                  check={lengthFault}
                  onCommit={(value) => change({ lengthSeconds: value })}
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
