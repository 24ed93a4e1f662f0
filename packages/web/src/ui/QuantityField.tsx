import { parseUnit, typedQuantity } from '@heuristor/core';
import { UnitText } from './UnitText';
import { TypedField } from './TypedField';
import { shortText } from './numberText';

interface Props {
  label: string;
  /** Null where nothing was typed yet. */
  value: number | null;
  /** UCUM code of the unit of `value`; others of the same kind may be typed. */
  unit: string;
  onCommit: (value: number) => void;
  check?: (value: number) => string | null;
  id?: string;
  digits?: number;
  disabled?: boolean;
  placeholder?: string;
  autoFocus?: boolean;
}

/** A number with a unit; any unit of its kind may be typed after it. */
export function QuantityField({ unit, value, digits = 6, ...field }: Props) {
  const expected = parseUnit(unit);
  return (
    <span className="with-unit">
      <TypedField
        {...field}
        value={value}
        read={(text) => typedQuantity(text, expected)}
        write={(number) => shortText(number, digits)}
      />
      <UnitText unit={expected} />
    </span>
  );
}
