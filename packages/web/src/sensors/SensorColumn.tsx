import { type Device } from '@heuristor/contracts';
import { useState } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { request } from '../api/client';
import { attemptInOrder } from '../api/attempt';
import { useDocuments, useInvestigation } from '../investigation/context';
import { recordingRun } from '../runs/runs';
import { usedBy } from './sensors';
import { useDevices } from './devices';
import { DeviceTokens } from './DeviceTokens';
import { SensorCard } from './SensorCard';
import { FixedMenu } from '../ui/FixedMenu';

export function SensorColumn() {
  const session = useInvestigation();
  const [isNetwork, setIsNetwork] = useState(false);
  const devices = useDevices((state) => state.devices);
  const recording = useDocuments(
    ({ runs, recorder }) => recordingRun(runs) !== undefined || recorder.phase !== 'idle',
  );
  const remembered = useDocuments(({ sensors }) => sensors);
  const used = usedBy(devices, session.id);
  const waiting = devices.filter((device) => device.waiting);
  const others = devices.filter((device) => !used.includes(device) && device.present && !device.waiting);
  const lost = others.filter(({ code }) => remembered.includes(code));
  return (
    <>
      <div className="side-head titled">
        <h2>Sensors</h2>
        <Dropdown align="end">
          <Dropdown.Toggle variant="plain" className="no-caret">
            <PlusLg aria-hidden /> Connect
          </Dropdown.Toggle>
          <FixedMenu className="tall-menu">
            {others.length === 0 && waiting.length === 0 && (
              <Dropdown.ItemText className="quiet">No other sensor is on the link.</Dropdown.ItemText>
            )}
            {others.map((device) => (
              <Offered key={device.code} device={device} disabled={recording} />
            ))}
            {waiting.length > 0 && <Dropdown.Header>On another machine</Dropdown.Header>}
            {waiting.map(({ code, model }) => (
              <Dropdown.Item
                key={code}
                onClick={() =>
                  void attemptInOrder(() => request('POST', `/devices/${encodeURIComponent(code)}/admission`))
                }
              >
                Let in {model} <span className="mono">{code}</span>
                <div className="quiet small">Look at the code on its housing first.</div>
              </Dropdown.Item>
            ))}
            <Dropdown.Divider />
            <Dropdown.Item onClick={() => setIsNetwork(true)}>
              Phones and devices on the network …
            </Dropdown.Item>
          </FixedMenu>
        </Dropdown>
      </div>
      {isNetwork && <DeviceTokens onClose={() => setIsNetwork(false)} />}
      {used.length === 0 && (
        <p className="quiet">
          No sensor is connected. Press Connect and choose the one whose code stands on the housing in front
          of you.
        </p>
      )}
      {used.map((device) => (
        <SensorCard key={device.code} device={device} recording={recording} />
      ))}
      {lost.map(({ code, model, use }) => (
        <section key={code} className="card-sheet lost" aria-label={`${model} ${code}, not connected`}>
          <div className="sensor-head">
            <span>{model}</span>
            <span className="code">{code}</span>
          </div>
          <p className="quiet small">{use === null ? 'Was connected here.' : `In use in “${use.name}”.`}</p>
          <div className="row-buttons">
            <Button variant="plain" disabled={recording} onClick={() => void session.sensors.use(code, true)}>
              {use === null ? 'Connect again' : 'Take it over'}
            </Button>
          </div>
        </section>
      ))}
    </>
  );
}

function Offered({ device, disabled }: { device: Device; disabled: boolean }) {
  const session = useInvestigation();
  const { code, model, stage, use } = device;
  return (
    <Dropdown.Item disabled={disabled} onClick={() => void session.sensors.use(code, true)}>
      {model} <span className="mono">{code}</span>
      {use !== null && <div className="quiet small">In use in “{use.name}”: takes it over</div>}
      {use === null && stage !== null && <div className="quiet small">{stage.title}</div>}
    </Dropdown.Item>
  );
}
