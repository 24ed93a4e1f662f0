import { type ChannelSetup, type Device, type DeviceChannel, type DeviceStream } from '@heuristor/contracts';
import { parseUnit, printedUnit, ucumCode } from '@heuristor/core';
import { useId } from 'react';
import { Form } from 'react-bootstrap';
import { useInvestigation } from '../../investigation/context';
import { unitsFor } from '../../ui/unitsOffered';
import { NameField } from '../../ui/NameField';
import { LiveReading } from '../LiveReading';
import { TwoPoints } from './TwoPoints';
import { ZeroRow } from './ZeroRow';
import { shortText } from '../../ui/numberText';

interface Props {
  device: Device;
  stream: DeviceStream;
  channel: DeviceChannel;
  index: number;
}

const shown = (value: number) => shortText(value, 4);

/** All that can be set of one channel. */
export function ChannelSetUp({ device, stream, channel, index }: Props) {
  const session = useInvestigation();
  const id = useId();
  const { key, own, on, reversed, range, ranges, zeroAtStart } = channel;
  const isRegular = stream.sampling === 'regular';
  const change = (patch: ChannelSetup, before: ChannelSetup) =>
    void session.sensors.setUp(device.code, { channels: { [key]: patch } }, { channels: { [key]: before } });
  const printed = printedUnit(parseUnit(own.unit));
  return (
    <section className="set-up-channel" aria-label={`Channel ${channel.symbol}`}>
      <div className="set-up-channel-head">
        <Form.Check
          type="switch"
          id={`${id}on`}
          label={`${channel.symbol}, ${channel.quantity}`}
          checked={on}
          onChange={() => change({ on: !on }, { on })}
        />
        {on && isRegular && device.present && (
          <LiveReading handle={stream.handle} index={index} channel={channel} rate={stream.liveRate} />
        )}
      </div>
      {on && (
        <div className="set-up-grid">
          <label htmlFor={`${id}symbol`}>Symbol and name</label>
          <span className="with-unit">
            <NameField
              label={`Symbol of ${own.symbol}`}
              value={channel.symbol}
              className="short"
              maxLength={8}
              onCommit={(symbol) => change({ symbol }, { symbol: channel.symbol })}
            />
            <NameField
              label={`Name of ${own.symbol}`}
              value={channel.quantity}
              maxLength={40}
              onCommit={(quantity) => change({ quantity }, { quantity: channel.quantity })}
            />
          </span>
          {stream.sampling !== 'events' && own.unit === '' && (
            <>
              <span>Unit</span>
              <NameField
                label={`Unit of ${channel.symbol}`}
                value={printedUnit(parseUnit(channel.unit))}
                className="short"
                maxLength={20}
                allowEmpty
                onCommit={(unit) => change({ unit: ucumCode(parseUnit(unit)) }, { unit: channel.unit })}
              />
            </>
          )}
          {isRegular && (
            <>
              {own.unit !== '' && (
                <>
                  <label htmlFor={`${id}unit`}>Unit</label>
                  <Form.Select
                    id={`${id}unit`}
                    aria-label={`Unit of ${channel.symbol}`}
                    size="sm"
                    value={channel.unit}
                    onChange={(event) => change({ unit: event.target.value }, { unit: channel.unit })}
                  >
                    {[...new Set([...unitsFor(own.unit), channel.unit])].map((unit) => (
                      <option key={unit} value={unit}>
                        {printedUnit(parseUnit(unit)) || '1'}
                      </option>
                    ))}
                  </Form.Select>
                </>
              )}
              <label htmlFor={`${id}range`}>Range</label>
              {ranges.length === 1 ? (
                <span>
                  {shown(ranges[0].low)} to {shown(ranges[0].high)} {printed}
                </span>
              ) : (
                <Form.Select
                  id={`${id}range`}
                  size="sm"
                  value={range}
                  onChange={(event) => change({ range: event.target.value }, { range })}
                >
                  {ranges.map((candidate) => (
                    <option key={candidate.key} value={candidate.key}>
                      {candidate.label === undefined ? '' : `${candidate.label}: `}
                      {shown(candidate.low)} to {shown(candidate.high)} {printed}
                    </option>
                  ))}
                </Form.Select>
              )}
              <label htmlFor={`${id}sign`}>Sign</label>
              <Form.Select
                id={`${id}sign`}
                size="sm"
                value={reversed ? 'turned' : 'own'}
                onChange={() => change({ reversed: !reversed }, { reversed })}
              >
                <option value="own">as the sensor has it</option>
                <option value="turned">reversed</option>
              </Form.Select>
              <span>Zero</span>
              <ZeroRow device={device} channel={channel} />
              <span />
              <Form.Check
                type="checkbox"
                id={`${id}start`}
                label="Zero anew before each run"
                checked={zeroAtStart}
                onChange={() => change({ zeroAtStart: !zeroAtStart }, { zeroAtStart })}
              />
              <span>Scale</span>
              <TwoPoints device={device} channel={channel} />
            </>
          )}
        </div>
      )}
    </section>
  );
}
