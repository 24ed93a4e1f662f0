import { type Device, type DeviceStream } from '@heuristor/contracts';
import { useEffect, useRef } from 'react';
import { Button, CloseButton } from 'react-bootstrap';
import { useDocuments, useInvestigation, useView } from '../investigation/context';
import { rateFault, ratesWords } from './rateFault';
import { recordingRun } from '../runs/runs';
import { useDevices } from './devices';
import { QuantityField } from '../ui/QuantityField';
import { RateField } from '../ui/RateField';
import { ChannelSetUp } from './setUp/ChannelSetUp';
import { useCovering } from '../ui/useCovering';

/** The set-up of one sensor, over the traces. */
export function SetUp() {
  const code = useView(({ setUp }) => setUp);
  const device = useDevices(({ devices }) => devices.find((candidate) => candidate.code === code));
  return device === undefined ? null : <DeviceSetUp key={device.code} device={device} />;
}

function DeviceSetUp({ device }: { device: Device }) {
  const session = useInvestigation();
  const locked = useDocuments(
    ({ runs, recorder }) => recordingRun(runs) !== undefined || recorder.phase !== 'idle',
  );
  const { code, model, streams, numbers, calibration, present } = device;
  const panel = useRef<HTMLElement>(null);
  const close = () => session.viewing.openSetUp(null);
  useEffect(() => panel.current?.focus(), []);
  useCovering(panel);
  return (
    <section
      ref={panel}
      className="over-traces set-up"
      aria-label={`Set-up of ${model} ${code}`}
      tabIndex={-1}
      onKeyDown={(event) => {
        if (event.key === 'Escape') close();
      }}
    >
      <header>
        <h2>
          {model} <span className="mono quiet">{code}</span>
        </h2>
        <State device={device} />
        <Button variant="plain" disabled={!present} onClick={() => void session.sensors.flash(code)}>
          Flash its lamp
        </Button>
        <Button variant="plain" disabled={locked} onClick={() => void session.sensors.use(code, false)}>
          Disconnect
        </Button>
        <CloseButton aria-label="Close the set-up" onClick={close} />
      </header>
      {locked && <p className="hint">A run is under way. What is set up here can be changed after it.</p>}
      <fieldset disabled={locked}>
        {streams.map((stream) => (
          <StreamSetUp key={stream.key} device={device} stream={stream} />
        ))}
        {numbers.length > 0 && (
          <div className="set-up-block">
            <h3>Its settings</h3>
            {numbers.map(({ key, label, unit, low, high, value }) => (
              <div key={key} className="set-up-row">
                <span>{label}</span>
                <QuantityField
                  label={`${label} of ${code}`}
                  value={value}
                  unit={unit}
                  check={(wanted) => (wanted >= low && wanted <= high ? null : `From ${low} to ${high}.`)}
                  onCommit={(wanted) =>
                    void session.sensors.calibrate(
                      code,
                      { ...calibration, numbers: { ...calibration.numbers, [key]: wanted } },
                      calibration,
                    )
                  }
                />
              </div>
            ))}
          </div>
        )}
      </fieldset>
    </section>
  );
}

/** Battery, signal and clock, where they are known. */
function State({ device: { battery, signal, drift } }: { device: Device }) {
  const parts = [
    battery === null ? null : `battery ${Math.round(battery * 100)} %`,
    signal === null ? null : `signal ${Math.round(signal * 100)} %`,
    drift === null || Math.abs(drift) < 2e-5
      ? null
      : `its clock runs ${Math.abs(drift * 1e6).toFixed(0)} millionths too ${drift > 0 ? 'fast' : 'slow'}`,
  ].filter((part) => part !== null);
  return <span className="quiet">{parts.join(' · ')}</span>;
}

function StreamSetUp({ device, stream }: { device: Device; stream: DeviceStream }) {
  const session = useInvestigation();
  const { rates, rate, key, sampling, channels } = stream;
  return (
    <div className="set-up-block">
      {sampling === 'regular' && (
        <div className="set-up-row">
          <span>
            Rate <span className="quiet small">{ratesWords(rates)}</span>
          </span>
          <RateField
            label={`Sample rate of ${device.code}${device.streams.length > 1 ? `, ${key}` : ''} in its set-up`}
            value={rate}
            check={(wanted) => rateFault(device.code, rates, wanted)}
            onCommit={(wanted) =>
              void session.sensors.setUp(
                device.code,
                { rates: { [key]: wanted } },
                { rates: { [key]: rate } },
              )
            }
          />
        </div>
      )}
      {channels.map((channel, index) => (
        <ChannelSetUp key={channel.key} device={device} stream={stream} channel={channel} index={index} />
      ))}
    </div>
  );
}
