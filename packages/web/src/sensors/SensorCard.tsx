import { type Device } from '@heuristor/contracts';
import { Button } from 'react-bootstrap';
import { BatteryLow } from './BatteryLow';
import { request } from '../api/client';
import { attemptInOrder } from '../api/attempt';
import { shortKeptWords } from '../recording/away/keptWords';
import { useInvestigation, useView } from '../investigation/context';
import { QuantityField } from '../ui/QuantityField';
import { EdgeLamp } from './EdgeLamp';
import { LiveReading } from './LiveReading';
import { Thread } from './Thread';
import { ZeroButton, ZeroNotes } from './zero/ZeroPart';

/** What is live about a sensor: its readings, its outputs, its zero. Everything else is in its set-up. */
export function SensorCard({ device, recording }: { device: Device; recording: boolean }) {
  const { code, model, present, sendsAgain, streams, outputs, battery } = device;
  const session = useInvestigation();
  const isOpen = useView(({ setUp }) => setUp === code);
  const on = streams.flatMap((stream) =>
    stream.channels.flatMap((channel, index) => (channel.on ? [{ stream, channel, index }] : [])),
  );
  const kept = shortKeptWords(device.away?.runs ?? []);
  const zeroable = on.flatMap(({ stream, channel }) => (stream.sampling === 'regular' ? [channel] : []));
  return (
    <section className="card-sheet" aria-label={`${model} ${code}`}>
      <div className="sensor-head">
        <span>{model}</span>
        <span className="code">
          <BatteryLow battery={battery} /> {code}
        </span>
      </div>
      {!present && (
        <div className="hint">
          {sendsAgain
            ? 'Not on the link. Back within ten seconds, it sends what it has read; after that a run marks a gap.'
            : 'Not on the link. Switch it on; a run that goes on marks the gap.'}
        </div>
      )}
      {present &&
        on.map(({ stream, channel, index }) =>
          stream.sampling === 'events' ? (
            <EdgeLamp key={channel.key} stream={stream} index={index} />
          ) : (
            <div key={channel.key}>
              <LiveReading
                handle={stream.handle}
                index={index}
                channel={channel}
                rate={stream.liveRate}
                named={on.length > 1}
              />
              <Thread handle={stream.handle} index={index} channel={channel} rate={stream.liveRate} />
            </div>
          ),
        )}
      {present && on.length === 0 && <div className="quiet">All its channels are switched off.</div>}
      {present &&
        outputs.map(({ key, label, unit, low, high, value }) => (
          <div key={key} className="editor-row output">
            <span className="quiet">{label}</span>
            <QuantityField
              label={`${label} of ${code}`}
              value={value}
              unit={unit}
              check={(wanted) =>
                wanted >= low && wanted <= high ? null : `${code} can be set from ${low} to ${high}.`
              }
              onCommit={(wanted) =>
                void attemptInOrder(() =>
                  request('POST', `/devices/${encodeURIComponent(code)}/output`, { key, value: wanted }),
                )
              }
            />
          </div>
        ))}
      {device.remark !== '' && <div className="hint small">{device.remark}</div>}
      {kept !== null && <div className="quiet small">{kept}</div>}
      <ZeroNotes device={device} channels={zeroable} />
      <div className="row-buttons">
        {zeroable.length > 0 && <ZeroButton device={device} channels={zeroable} isRecording={recording} />}
        <Button
          variant="plain"
          aria-label={`Set up ${code}`}
          aria-expanded={isOpen}
          onClick={() => session.viewing.openSetUp(isOpen ? null : code)}
        >
          Set up
        </Button>
      </div>
    </section>
  );
}
