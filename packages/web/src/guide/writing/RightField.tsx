import { type GuideItemOf } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { QuantityField } from '../../ui/QuantityField';
import { TextField } from '../../ui/TextField';

type Right = GuideItemOf<'number'>['right'];

/** What is right, within which tolerance, and in which unit. */
export function RightField({
  unit,
  right,
  onChange,
}: {
  unit: string;
  right: Right;
  onChange: (patch: { unit?: string; right?: Right }) => void;
}) {
  return (
    <div className="field-row right-field">
      <span className="quiet small">Right is</span>
      <QuantityField
        label="What is right"
        unit={unit}
        value={right?.value ?? null}
        onCommit={(value) =>
          onChange({ right: { value, tolerance: right?.tolerance ?? Math.abs(value) * 0.02 } })
        }
      />
      <span className="quiet small">±</span>
      <QuantityField
        label="Tolerance"
        unit={unit}
        value={right?.tolerance ?? null}
        disabled={right === null}
        check={(tolerance) => (tolerance >= 0 ? null : 'A tolerance is not negative.')}
        onCommit={(tolerance) => right !== null && onChange({ right: { ...right, tolerance } })}
      />
      <TextField
        label="Unit"
        placeholder="unit"
        className="unit-typed"
        value={unit}
        maxLength={40}
        check={faultOfUnit}
        onCommit={(to) => onChange({ unit: to.trim() })}
      />
    </div>
  );
}

function faultOfUnit(text: string): string | null {
  try {
    parseUnit(text.trim());
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}
