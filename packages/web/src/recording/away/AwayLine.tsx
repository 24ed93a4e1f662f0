import { type Device, type Prepare } from '@heuristor/contracts';
import { type ReactNode, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { rateWordsOf } from '../plan/planWords';
import { usedBy } from '../../sensors/sensors';
import { useDevices } from '../../sensors/devices';
import { QuantityField } from '../../ui/QuantityField';
import { useQuantities } from '../../sensors/useQuantities';

const usualSeconds = 60;

/** How a device is to record by itself, as a sentence, and the button that tells it. */
export function AwayLine({ menu }: { menu: ReactNode }) {
  const session = useInvestigation();
  const devices = useDevices((state) => state.devices);
  const used = usedBy(devices, session.id).filter(({ away, present }) => away !== null && present);
  const [code, setCode] = useState<string | null>(null);
  const device = used.find((candidate) => candidate.code === code) ?? used.at(0);
  return (
    <section className="plan-line pace-line" aria-label="Recording away from the computer">
      <div className="pace-sentence">
        {menu}
        {device === undefined ? (
          <span>
            {usedBy(devices, session.id).length === 0
              ? 'connect a device that can record by itself.'
              : 'none of the connected devices can record by itself.'}
          </span>
        ) : (
          <Preparation key={device.code} device={device} choices={used} onDevice={setCode} />
        )}
      </div>
    </section>
  );
}

interface PreparationProps {
  device: Device;
  choices: readonly Device[];
  onDevice: (code: string) => void;
}

function Preparation({ device, choices, onDevice }: PreparationProps) {
  const session = useInvestigation();
  const { code, away } = device;
  const quantities = useQuantities().filter((quantity) => quantity.device.code === code);
  const levels = quantities.filter(({ stream }) => stream.sampling === 'regular');
  const conditions = useDocuments(({ plan }) => plan.end);
  // What was typed stands, also while the other choice is looked at.
  const [typed, setTyped] = useState(
    conditions.kind === 'after' ? Math.max(conditions.seconds, usualSeconds) : usualSeconds,
  );
  const [isTimed, setIsTimed] = useState(true);
  const seconds = isTimed ? typed : null;
  const [kind, setKind] = useState<Prepare['begin']['kind']>('at-once');
  const [level, setLevel] = useState({
    channel: levels.at(0)?.channel.key ?? '',
    direction: 'rise',
    value: 0,
  });
  const [isSending, setIsSending] = useState(false);
  const chosen = levels.find(({ channel }) => channel.key === level.channel);
  const isBusy = away?.runs.some(({ state }) => state === 'recording' || state === 'waiting') === true;
  const begin: Prepare['begin'] =
    kind === 'level'
      ? {
          kind,
          channel: level.channel,
          direction: level.direction === 'fall' ? 'fall' : 'rise',
          value: level.value,
        }
      : { kind };
  const prepare = async () => {
    setIsSending(true);
    await session.away.prepare({ code, seconds, begin });
    setIsSending(false);
  };
  return (
    <>
      {choices.length > 1 ? (
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label="Device that records by itself"
          value={code}
          onChange={(event) => onDevice(event.target.value)}
        >
          {choices.map(({ code: other, model }) => (
            <option key={other} value={other}>
              {model} {other}
            </option>
          ))}
        </Form.Select>
      ) : (
        <strong>
          {device.model} <span className="mono">{code}</span>
        </strong>
      )}
      <span>
        takes {quantities.map(({ channel }) => channel.symbol).join(', ')}, {rateWordsOf(quantities)},
      </span>
      <Form.Select
        size="sm"
        className="w-auto"
        aria-label="Length of the run away"
        value={seconds === null ? 'open' : 'set'}
        onChange={(event) => setIsTimed(event.target.value !== 'open')}
      >
        <option value="set">for a time of</option>
        <option value="open">until fetched or full</option>
      </Form.Select>
      {seconds !== null && (
        <QuantityField
          label="Seconds of the run away"
          value={seconds}
          unit="s"
          check={(value) => (value >= 0.1 && value <= 30 * 86_400 ? null : 'From 0.1 s to 30 days.')}
          onCommit={setTyped}
        />
      )}
      <span>beginning</span>
      <Form.Select
        size="sm"
        className="w-auto"
        aria-label="Beginning of the run away"
        value={kind}
        onChange={(event) => setKind(event.target.value as Prepare['begin']['kind'])}
      >
        <option value="at-once">at once</option>
        <option value="button">by its own button</option>
        {levels.length > 0 && <option value="level">at a level</option>}
      </Form.Select>
      {kind === 'level' && chosen !== undefined && (
        <>
          <Form.Select
            size="sm"
            className="w-auto"
            aria-label="What the run away waits for"
            value={`${level.channel} ${level.direction}`}
            onChange={(event) => {
              const [channel, direction] = event.target.value.split(' ');
              setLevel({ ...level, channel, direction });
            }}
          >
            {levels.flatMap(({ channel }) =>
              ['rise', 'fall'].map((direction) => (
                <option key={`${channel.key} ${direction}`} value={`${channel.key} ${direction}`}>
                  {channel.symbol} {direction === 'rise' ? 'rises' : 'falls'} through
                </option>
              )),
            )}
          </Form.Select>
          <QuantityField
            label="Level of the run away"
            value={level.value}
            unit={chosen.channel.unit}
            onCommit={(value) => setLevel({ ...level, value })}
          />
        </>
      )}
      <Button
        variant="act"
        disabled={isBusy || isSending || quantities.length === 0}
        onClick={() => void prepare()}
      >
        {isBusy
          ? 'It is recording'
          : isSending
            ? 'Sending …'
            : kind === 'at-once'
              ? 'Start it'
              : 'Prepare it'}
      </Button>
    </>
  );
}
