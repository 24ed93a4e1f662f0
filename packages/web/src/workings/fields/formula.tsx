import { type FormulaText } from '@heuristor/core';
import { useSession } from '../../investigation/context';
import { FormulaField } from '../formulas/FormulaField';
import { type FieldEditor } from './field';

export const formula: FieldEditor<'formula', FormulaText> = {
  isRow: true,
  Control({ id, name, field, entry, value, onDone }) {
    const session = useSession();
    const allowsOpen = entry.kind === 'formulaFit';
    return (
      <FormulaField
        id={id}
        entry={entry}
        label={field.label}
        value={value}
        allowsOpen={allowsOpen}
        onCommit={(typed, more) => session.changeEntry(entry.id, { [name]: typed, ...more })}
        {...(allowsOpen || onDone === undefined ? {} : { onDone })}
      />
    );
  },
};
