import { type Device, type DeviceChannel, type StillReading, stillReadingSchema } from '@heuristor/contracts';
import { type Unit, leadingNumber, parseUnit, printedUnit, typedLoad } from '@heuristor/core';
import { format } from 'date-fns';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { getJson } from '../../api/client';
import { attemptInOrder } from '../../api/attempt';
import { useInvestigation } from '../../investigation/context';
import { tell } from '../../ui/noticeStore';
import { shortText } from '../../ui/numberText';

const places = [0, 1] as const;
const shown = (value: number) => shortText(value, 5);

/** What a mass that was typed pulls with; nothing where none was. */
function Weight({ text, unit }: { text: string; unit: Unit }) {
  let words: string;
  try {
    const { value, mass } = typedLoad(text, unit);
    if (mass === null) return null;
    words = `pulls with ${shown(value)} ${printedUnit(unit)}, where g is 9.80665 m s⁻²`;
  } catch {
    return null;
  }
  return <span className="quiet small weight">{words}</span>;
}

/** Calibration by two true values that are typed: a known mass on a force sensor, two marks of a rail. */
export function TwoPoints({ device, channel }: { device: Device; channel: DeviceChannel }) {
  const session = useInvestigation();
  const [isOpen, setIsOpen] = useState(false);
  const [texts, setTexts] = useState(['0', '']);
  const [reads, setReads] = useState<(StillReading | null)[]>([null, null]);
  const [reading, setReading] = useState<number | null>(null);
  const { code, calibration } = device;
  const scale = calibration.scales[channel.key];
  const unit = parseUnit(channel.own.unit);
  const printed = printedUnit(unit);
  const read = async (place: number) => {
    setReading(place);
    await attemptInOrder(async () => {
      const still = await getJson(
        `/devices/${encodeURIComponent(code)}/channels/${channel.key}/still`,
        stillReadingSchema,
      );
      setReads((before) => before.with(place, still));
    });
    setReading(null);
  };
  const apply = () => {
    try {
      const known = texts.map((text) => typedLoad(text, unit).value);
      const [a, b] = reads.map((one) => one?.mean ?? null);
      if (a === null || b === null || known[0] === known[1] || Math.abs(a - b) <= 3 * channel.noise)
        throw new Error('The two values have to lie apart. Change what the sensor sees, and read it again.');
      const gain = (known[1] - known[0]) / (b - a);
      const at = new Date().toISOString();
      void session.sensors.calibrate(
        code,
        {
          ...calibration,
          scales: {
            ...calibration.scales,
            [channel.key]: {
              gain,
              points: places.map((i) => ({
                read: reads[i]?.mean ?? 0,
                known: known[i],
                uncertainty: reads[i]?.uncertainty ?? 0,
              })),
              at,
            },
          },
          zeros: { ...calibration.zeros, [channel.key]: { offset: a - known[0] / gain, spread: 0, at } },
        },
        calibration,
      );
      setIsOpen(false);
    } catch (error) {
      tell({ kind: 'fault', text: error instanceof Error ? error.message : String(error) });
    }
  };
  const forget = () => {
    const scales = Object.fromEntries(
      Object.entries(calibration.scales).filter(([key]) => key !== channel.key),
    );
    void session.sensors.calibrate(code, { ...calibration, scales }, calibration);
  };
  if (!isOpen)
    return (
      <span className="with-unit">
        <span className="quiet">
          {scale === undefined
            ? 'as the sensor has it'
            : `× ${shown(scale.gain)}, by two values of ${format(new Date(scale.at), 'd MMM yyyy HH:mm')}`}
        </span>
        <Button variant="plain" size="sm" onClick={() => setIsOpen(true)}>
          Calibrate by two values
        </Button>
        {scale !== undefined && (
          <Button variant="plain" size="sm" onClick={forget}>
            Take away
          </Button>
        )}
      </span>
    );
  return (
    <div className="two-points">
      {places.map((place) => (
        <div key={place} className="editor-row">
          <span className="quiet">{place === 0 ? 'First' : 'Second'} true value</span>
          <Form.Control
            size="sm"
            className="number-input"
            aria-label={`${place === 0 ? 'First' : 'Second'} true value of ${channel.symbol}`}
            value={texts[place]}
            onChange={(event) => setTexts(texts.with(place, event.target.value))}
          />
          <span>{(leadingNumber(texts[place])?.rest ?? '') === '' ? printed : ''}</span>
          <Button variant="plain" size="sm" disabled={reading !== null} onClick={() => void read(place)}>
            {reading === place ? 'Hold still …' : 'Read it now'}
          </Button>
          <span className="mono">{reads[place] === null ? '' : shown(reads[place].mean)}</span>
          <Weight text={texts[place]} unit={unit} />
        </div>
      ))}
      <div className="row-buttons">
        <Button variant="act" size="sm" disabled={reads.includes(null)} onClick={apply}>
          Calibrate
        </Button>
        <Button variant="plain" size="sm" onClick={() => setIsOpen(false)}>
          Cancel
        </Button>
      </div>
    </div>
  );
}
