import { type Entry, type SeriesRef } from '@heuristor/core';
import { NumberField } from '../../ui/NumberField';
import { useUnitOf } from '../entries/useUnitOf';
import { type FieldEditor } from './field';

export const number: FieldEditor<'number', number> = {
  Control: ({ id, field: { label, low, inUnitOf }, entry, value, set }) => (
    <span className="with-unit">
      <NumberField
        id={id}
        label={label}
        value={value}
        check={(typed) => (low !== null && typed < low ? `Type a number from ${low} upwards.` : null)}
        onCommit={set}
      />
      {inUnitOf === 'of' && 'of' in entry && <UnitOf reference={entry.of} entry={entry} />}
    </span>
  ),
};

/** The unit in which something is told of a series. */
function UnitOf({ reference, entry }: { reference: SeriesRef; entry: Entry }) {
  return <span className="quiet">{useUnitOf(reference, entry)}</span>;
}
