import { type ResultRef, type SeriesRef } from '../references';
import { type ReferenceMap, defineFieldType } from './fieldType';
import { type FormulaText } from './values';

export interface FormulaShape {
  type: 'formula';
  label: string;
  usual: FormulaText;
}

export const formulaField = (label: string) =>
  ({ type: 'formula', label, usual: { text: '', names: {} } }) as const;

const mapped = (reference: SeriesRef | ResultRef, map: ReferenceMap) =>
  reference.startsWith('result:') ? map.result(reference as ResultRef) : map.series(reference as SeriesRef);

export const formula = defineFieldType<FormulaShape, FormulaText>({
  usual: ({ usual }) => usual,
  uses: (value) => ({ formulas: [value] }),
  withReferences: ({ text, names }, map) => ({
    text,
    names: Object.fromEntries(
      Object.entries(names).map(([name, reference]) => [name, mapped(reference, map)]),
    ),
  }),
});
