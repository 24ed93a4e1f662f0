import {
  type FieldType,
  type NewAbout,
  type ReferenceMap,
  type Uses,
  type UnitsHere,
} from './fieldTypes/fieldType';
import { fieldTypes } from './fieldTypes';
import { type SeriesRef } from './references';

export { anchorField } from './fieldTypes/anchor';
export { choiceField } from './fieldTypes/choice';
export { flagField } from './fieldTypes/flag';
export { formulaField } from './fieldTypes/formula';
export { integerField } from './fieldTypes/integer';
export { lengthField, levelField, numberField, widthField } from './fieldTypes/number';
export { type OwnInterval, ownIntervalsField } from './fieldTypes/ownIntervals';
export { parametersField } from './fieldTypes/parameters';
export { regionField } from './fieldTypes/region';
export { regionsField } from './fieldTypes/regions';
export { resultField } from './fieldTypes/result';
export { anySeriesField, axisField, seriesField } from './fieldTypes/series';
export { textField } from './fieldTypes/text';
export { type Anchor, type FormulaText } from './fieldTypes/values';

type FieldTypes = typeof fieldTypes;
export type FieldTypeKey = keyof FieldTypes;

type PartsOf<K extends FieldTypeKey> =
  FieldTypes[K] extends FieldType<infer Shape, infer Value> ? { shape: Shape; value: Value } : never;

/**
 * What an entry has to be given, declared once by its kind: the stored schema, the editor, the evaluator's memory and the
 * copying of entries follow from it.
 */
export type Field<K extends FieldTypeKey = FieldTypeKey> = {
  [Type in K]: PartsOf<Type>['shape'] & {
    /** True of a field that an entry need not have: what was stored before there was such a field means the usual. */
    later?: boolean;
  };
}[K];

export type Fields = Readonly<Record<string, Field>>;

/** The stored value of a field. */
export type FieldValue<F> = F extends { type: 'choice'; options: readonly { key: infer K }[] }
  ? K
  : F extends { type: infer K extends FieldTypeKey }
    ? PartsOf<K>['value']
    : never;

/** Every field with its value, as a kind is given them. */
export type FieldValues<F extends Fields> = { [K in keyof F]: FieldValue<F[K]> };

type LaterKey<F extends Fields> = { [K in keyof F]: F[K] extends { later: true } ? K : never }[keyof F];

/** Fields as an entry holds them: later ones may be missing. */
export type StoredValues<F extends Fields> = FieldValues<Omit<F, LaterKey<F>>> & {
  [K in LaterKey<F>]?: FieldValue<F[K]>;
};

/** Declares a field that a kind got later: where an entry has none, it means the usual. */
export const later = <const F extends Field>(field: F) => ({ ...field, later: true }) as const;

// A field and its type carry the same key, and a value is that of its field, which the type system cannot follow through the look-up.
const typeOf = ({ type }: Field) => fieldTypes[type] as unknown as FieldType<Field, unknown>;

/** What a field holds where nothing was said; undefined where it has to be said. */
export const usualOf = (field: Field): unknown => typeOf(field).usual(field);

/** What a field of an entry that is made anew holds. */
export function valueOfNew(field: Field, about: NewAbout): unknown {
  const { ofNew, usual } = typeOf(field);
  return ofNew === undefined ? usual(field) : ofNew(field, about);
}

/** What the value of a field speaks of. */
export const usesOf = (field: Field, value: unknown): Uses => typeOf(field).uses?.(value, field) ?? {};

/** The value of a field with other references; undefined where it has none. */
export const valueWithReferences = (field: Field, value: unknown, map: ReferenceMap): unknown =>
  typeOf(field).withReferences?.(value, map);

/** The series in whose unit a field of an entry is given; null where it has no such unit. */
export const unitSeriesOf = (
  field: Field,
  value: unknown,
  values: Readonly<Record<string, unknown>>,
): SeriesRef | null => typeOf(field).unitSeries?.(value, field, values) ?? null;

/** The value of a field in the units of a run; undefined where it stands as it is. */
export const valueInUnits = (field: Field, value: unknown, units: UnitsHere): unknown =>
  typeOf(field).inUnits?.(value, field, units);
