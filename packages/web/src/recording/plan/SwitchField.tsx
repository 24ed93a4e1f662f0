import { Form } from 'react-bootstrap';
import { type Quantity } from '../../sensors/sensors';

interface Props {
  label: string;
  chosen: string;
  switches: readonly Quantity[];
  onChange: (quantity: string) => void;
}

/** Which of the things that switch is meant; one that is not connected now keeps its place. */
export function SwitchField({ label, chosen, switches, onChange }: Props) {
  return (
    <Form.Select
      size="sm"
      aria-label={label}
      value={chosen}
      onChange={(event) => onChange(event.target.value)}
    >
      {!switches.some(({ key }) => key === chosen) && (
        <option value={chosen}>{chosen} (not connected)</option>
      )}
      {switches.map(({ key, channel, device }) => (
        <option key={key} value={key}>
          {channel.symbol} ({channel.quantity}, {device.code})
        </option>
      ))}
    </Form.Select>
  );
}
