import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../investigation/context';
import { recordingRun } from '../runs/runs';
import { usedBy } from './sensors';
import { useDevices } from './devices';
import { ConnectButton } from './Connect';
import { SensorCard } from './SensorCard';
import { useChosenForZero } from './zero/zeroChoice';

export function SensorColumn() {
  const session = useInvestigation();
  const devices = useDevices((state) => state.devices);
  const recording = useDocuments(
    ({ runs, recorder }) => recordingRun(runs) !== undefined || recorder.phase !== 'idle',
  );
  const remembered = useDocuments(({ sensors }) => sensors);
  const used = usedBy(devices, session.id);
  const chosenForZero = useChosenForZero();
  const [isZeroing, setZeroing] = useState(false);
  const zeroed = used.flatMap((device) => {
    const keys = chosenForZero(device);
    return device.present && keys.length > 0 ? [{ device, keys }] : [];
  });
  const zeroAll = async () => {
    setZeroing(true);
    await Promise.all(zeroed.map(({ device, keys }) => session.sensors.zero(device, keys)));
    setZeroing(false);
  };
  const others = devices.filter((device) => !used.includes(device) && device.present && !device.waiting);
  const lost = others.filter(({ code }) => remembered.includes(code));
  return (
    <>
      <div className="side-head titled">
        <h2>Sensors</h2>
        <ConnectButton />
      </div>
      {used.length === 0 && (
        <p className="quiet">
          No sensor is connected. Press Connect and choose the one whose code stands on the housing in front
          of you.
        </p>
      )}
      {zeroed.length > 1 && (
        <Button
          variant="plain"
          disabled={recording || isZeroing}
          onClick={() => void zeroAll()}
          title="All that is chosen on the cards, at once"
        >
          {isZeroing ? 'Hold still …' : `Zero all ${zeroed.length}`}
        </Button>
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
            <Button
              variant="plain"
              disabled={recording}
              onClick={() =>
                use === null
                  ? void session.sensors.use(code, true)
                  : session.dialogs.ask('takeOver', { code, model, from: use.name })
              }
            >
              {use === null ? 'Connect again' : 'Take it over'}
            </Button>
          </div>
        </section>
      ))}
    </>
  );
}
