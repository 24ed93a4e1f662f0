import { type Device } from '@heuristor/contracts';
import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { request } from '../api/client';
import { attempt } from '../session/attempt';
import { NumberField } from '../ui/NumberField';
import { LiveReading } from './LiveReading';
import { Thread } from './Thread';

/** Slower than this, a swing or a run of a few seconds is met too coarsely. Common practice, no source. */
const usualLowestRate = 40;

export function SensorCard({ device, recording }: { device: Device; recording: boolean }) {
  const { code, model, handle, channels, present, rate, rates, zeros, reversed } = device;
  const [zeroing, setZeroing] = useState(false);
  const path = `/devices/${encodeURIComponent(code)}`;
  const change = (patch: object) => void attempt(() => request('PATCH', path, patch));
  const zero = async () => {
    setZeroing(true);
    await attempt(() => request('POST', `${path}/zero`));
    setZeroing(false);
  };
  const [firstZero] = Object.values(zeros);
  return (
    <section className="card-sheet" aria-label={`${model} ${code}`}>
      <div className="sensor-head">
        <span>{model}</span>
        <span className="code">{code}</span>
      </div>
      {!present && (
        <div className="hint">Not on the link. Switch it on; a run that goes on marks the gap.</div>
      )}
      {present &&
        channels.map((channel, i) => {
          const offset = zeros[channel.key]?.offset ?? 0;
          const sign = reversed ? -1 : 1;
          const ends = [sign * (channel.range.low - offset), sign * (channel.range.high - offset)];
          const [low, high] = [Math.min(...ends), Math.max(...ends)];
          return (
            <div key={channel.key}>
              <LiveReading handle={handle} index={i} channel={channel} low={low} high={high} />
              <Thread handle={handle} channel={i} low={low} high={high} noise={channel.noise} />
            </div>
          );
        })}
      <div className="pairs mt-1">
        <Form.Label htmlFor={`rate-${code}`}>Rate</Form.Label>
        <span className="with-unit">
          <NumberField
            id={`rate-${code}`}
            label={`Sample rate of ${code} in hertz`}
            value={rate}
            check={(value) =>
              value >= rates.lowest && value <= rates.highest
                ? null
                : `${code} takes ${rates.lowest} to ${rates.highest} readings a second.`
            }
            onCommit={(value) => change({ rate: value })}
          />
          Hz
        </span>
      </div>
      {rate < usualLowestRate && (
        <div className="hint mt-2">
          Slow for a swing or a run of a few seconds: {usualLowestRate} to {Math.min(rates.highest, 50)} Hz
          are usual.
        </div>
      )}
      <div className="quiet small mt-2" data-testid={`zeroed-${code}`}>
        {firstZero === undefined
          ? 'Not zeroed'
          : `Zeroed ${formatDistanceToNow(new Date(firstZero.at), { addSuffix: true })}, spread ${(firstZero.spread * 1000).toFixed(2)} m${channels[0].unit}`}
      </div>
      <div className="row-buttons">
        <Button variant="plain" disabled={!present || recording || zeroing} onClick={() => void zero()}>
          {zeroing ? 'Hold still …' : 'Zero'}
        </Button>
        <Dropdown align="end">
          <Dropdown.Toggle variant="plain" className="no-caret" aria-label={`More for ${code}`}>
            More
          </Dropdown.Toggle>
          <Dropdown.Menu popperConfig={{ strategy: 'fixed' }}>
            <Dropdown.Item disabled={recording} onClick={() => change({ reversed: !reversed })}>
              {reversed ? 'Turn the sign back' : 'Turn the sign around'}
            </Dropdown.Item>
            <Dropdown.Item
              disabled={recording || firstZero === undefined}
              onClick={() => void attempt(() => request('DELETE', `${path}/zero`))}
            >
              Take the zero away
            </Dropdown.Item>
            <Dropdown.Item
              disabled={!present}
              onClick={() => void attempt(() => request('POST', `${path}/flash`))}
            >
              Flash its lamp
            </Dropdown.Item>
            <Dropdown.Item disabled={recording} onClick={() => change({ connected: false })}>
              Disconnect
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
      </div>
    </section>
  );
}
