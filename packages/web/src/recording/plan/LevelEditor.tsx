import { type Level } from '@heuristor/contracts';
import { divideUnits, parseUnit, ucumCode } from '@heuristor/core';
import { Form } from 'react-bootstrap';
import { type Quantity } from '../../sensors/sensors';
import { threadOf } from '../../sensors/devices';
import { QuantityField } from '../../ui/QuantityField';
import { LevelTrace } from './LevelTrace';

interface Props {
  level: Level;
  quantities: readonly Quantity[];
  /** For the fields' names: "beginning" or "end". */
  of: string;
  onChange: (level: Level) => void;
}

const perSecond = (unit: string) => ucumCode(divideUnits(parseUnit(unit), parseUnit('s')));

/** A level that can stand in a plan at first: where the quantity has been in the last seconds. */
export function usualLevel({ key, channel, stream, index }: Quantity): Level {
  const { low, high, noise, resolution, unit } = channel;
  const good = threadOf(stream.handle, index).values.filter((value) => value > low && value < high);
  const middle =
    good.length > 0
      ? (Math.min(...good) + Math.max(...good)) / 2
      : low < 0 && high > 0
        ? 0
        : (low + high) / 2;
  // No finer than what the sensor can tell apart.
  const step = 10 ** Math.ceil(Math.log10(Math.max(noise * 10, resolution * 10, (high - low) * 1e-6)));
  return {
    quantity: key,
    of: 'reading',
    direction: 'rise',
    value: Number((Math.round(middle / step) * step).toPrecision(12)),
    unit,
  };
}

/** Quantity, direction and height of a level; the height can be dragged on the live trace. */
export function LevelEditor({ level, quantities, of, onChange }: Props) {
  const chosen = quantities.find(({ key }) => key === level.quantity);
  const unitOf = (quantity: Quantity | undefined, kind: Level['of']) =>
    quantity === undefined
      ? level.unit
      : kind === 'speed'
        ? perSecond(quantity.channel.unit)
        : quantity.channel.unit;
  const levels = quantities.filter(({ stream }) => stream.sampling !== 'events');
  return (
    <div className="editor-level">
      <div className="editor-row wrap">
        <Form.Select
          size="sm"
          aria-label={`Quantity of the ${of}`}
          value={level.quantity}
          onChange={(event) => {
            const quantity = levels.find(({ key }) => key === event.target.value);
            if (quantity !== undefined)
              onChange({
                ...usualLevel(quantity),
                of: level.of,
                direction: level.direction,
                unit: unitOf(quantity, level.of),
              });
          }}
        >
          {chosen === undefined && <option value={level.quantity}>{level.quantity} (not connected)</option>}
          {levels.map(({ key, channel, device }) => (
            <option key={key} value={key}>
              {channel.symbol} ({channel.quantity}, {device.code})
            </option>
          ))}
        </Form.Select>
        <Form.Select
          size="sm"
          aria-label={`Reading or speed at the ${of}`}
          value={level.of}
          onChange={(event) => {
            const kind = event.target.value === 'speed' ? 'speed' : 'reading';
            onChange({ ...level, of: kind, unit: unitOf(chosen, kind) });
          }}
        >
          <option value="reading">its reading</option>
          <option value="speed">how fast it changes</option>
        </Form.Select>
        <Form.Select
          size="sm"
          aria-label={`Direction of the ${of}`}
          value={level.direction}
          onChange={(event) =>
            onChange({ ...level, direction: event.target.value === 'fall' ? 'fall' : 'rise' })
          }
        >
          <option value="rise">rises through</option>
          <option value="fall">falls through</option>
        </Form.Select>
        <QuantityField
          label={`Level of the ${of}`}
          value={level.value}
          unit={level.unit}
          onCommit={(value) => onChange({ ...level, value })}
        />
      </div>
      {/* Of what begins at zero in every run, the live reading says nothing about the level. */}
      {chosen !== undefined &&
        level.of === 'reading' &&
        level.unit === chosen.channel.unit &&
        !chosen.channel.zeroAtStart && (
          <LevelTrace
            quantity={chosen}
            levels={[{ word: '', value: level.value, onMove: (value) => onChange({ ...level, value }) }]}
          />
        )}
    </div>
  );
}
