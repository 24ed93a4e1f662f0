import { Button, Form } from 'react-bootstrap';
import { NumberField } from '../../ui/NumberField';
import { type Sight } from '../../workers/protocol';

interface Props {
  /** Unit of the axis, as it is written. */
  unit: string;
  range: Sight;
  isAutomatic: boolean;
  onRange: (range: Sight) => void;
  onAutomatic: () => void;
  automaticWord: string;
  children?: React.ReactNode;
}

const atLeast = (low: number) => (value: number) =>
  value > low ? null : `The upper end must be greater than ${low}.`;
const atMost = (high: number) => (value: number) =>
  value < high ? null : `The lower end must be less than ${high}.`;

const aboveZero = (value: number) =>
  value > 0 ? null : 'A logarithmic axis begins above 0: type a number like 0.01.';

/** The ends of an axis, typed, and the way back to where it sets itself. */
export function AxisEditor({
  unit,
  range,
  isAutomatic,
  onRange,
  onAutomatic,
  automaticWord,
  children,
}: Props) {
  return (
    <Form className="axis-editor" onSubmit={(event) => event.preventDefault()}>
      <div className="axis-ends">
        <span>From</span>
        <NumberField
          label="Lower end of the axis"
          value={range.from}
          check={(value) =>
            (range.isLogarithmic === true ? aboveZero(value) : null) ?? atMost(range.to)(value)
          }
          onCommit={(from) => onRange({ ...range, from })}
        />
        <span>to</span>
        <NumberField
          label="Upper end of the axis"
          value={range.to}
          check={atLeast(range.from)}
          onCommit={(to) => onRange({ ...range, to })}
        />
        <span className="mono">{unit}</span>
      </div>
      {children}
      <Button variant="plain" disabled={isAutomatic} onClick={onAutomatic}>
        {automaticWord}
      </Button>
    </Form>
  );
}
