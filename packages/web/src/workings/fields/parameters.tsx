import { ParametersTable } from '../formulas/ParametersTable';
import { type FieldEditor } from './field';

export const parameters: FieldEditor<'parameters', unknown> = {
  isRow: true,
  Control: ({ entry }) => (entry.kind === 'formulaFit' ? <ParametersTable entry={entry} /> : null),
};
