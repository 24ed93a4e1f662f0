import { type GuideItemOf } from '@heuristor/contracts';
import { QuantityField } from '../../ui/QuantityField';
import { UnitField } from './UnitField';

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
      <UnitField label="Unit" unit={unit} onCommit={(to) => onChange({ unit: to })} />
    </div>
  );
}
