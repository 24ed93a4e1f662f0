import { parseUnit } from '@heuristor/core';
import { sentenceOf } from '../../api/client';
import { TextField } from '../../ui/TextField';

/** The UCUM code of a unit, typed; nothing for a plain number. */
export function UnitField({
  label,
  unit,
  onCommit,
}: {
  label: string;
  unit: string;
  onCommit: (unit: string) => void;
}) {
  return (
    <TextField
      label={label}
      placeholder="unit"
      className="unit-typed"
      value={unit}
      maxLength={40}
      check={faultOfUnit}
      onCommit={(text) => onCommit(text.trim())}
    />
  );
}

function faultOfUnit(text: string): string | null {
  try {
    parseUnit(text.trim());
    return null;
  } catch (error) {
    return sentenceOf(error);
  }
}
