import { type ParameterSetting } from '../../fitting/models/typedFunction';
import { type ResultRef, type SeriesRef } from '../references';
import { type Anchor, type FormulaText } from './values';

/** What the references of a value are put for. */
export interface ReferenceMap {
  series(reference: SeriesRef): SeriesRef;
  result(reference: ResultRef): ResultRef;
  region(id: string): string;
}

/** What the value of a field speaks of: all of this decides what its entry says. */
export interface Uses {
  series?: readonly SeriesRef[];
  /** Ids of regions; null is the whole run. */
  regions?: readonly (string | null)[];
  results?: readonly ResultRef[];
  /** Moments that each run has for itself. */
  anchors?: readonly Anchor[];
  formulas?: readonly FormulaText[];
  /** Names in formulas that a fit is to find, and that mean nothing else. */
  parameters?: Readonly<Record<string, ParameterSetting>>;
}

/** How the numbers of a value are brought into the units of a run. */
export interface UnitsHere {
  runId: string;
  /** @param isWidth whether it is a distance, which differs where a scale has its zero elsewhere */
  read(number: number, isWidth: boolean): number;
}

/** What is known when an entry is made anew. */
export interface NewAbout {
  /** The name of the field. */
  key: string;
  /** The series that the entry is to be of. */
  of: SeriesRef;
  /** What stands on the horizontal axis that is looked at. */
  horizontal: SeriesRef;
  /** The region that it is to be on. */
  region: string | null;
  /** The next of the results that it is to be worked out from. */
  nextResult(): ResultRef | '';
}

/**
 * A type of fields: what a field of it is declared by, and what is done with its values wherever entries are stored, copied, evaluated
 * or made anew. Its schema lies in `contracts/src/fieldSchemas`, its editor in `web/src/workings/fields`.
 */
export interface FieldType<Shape, Value> {
  /** What a field holds where nothing was said; undefined where it has to be said. */
  usual(field: Shape): Value | undefined;
  /** What it holds in an entry that is made anew, where that is not the usual. */
  ofNew?(field: Shape & { later?: boolean }, about: NewAbout): Value | '';
  /** Absent where a value speaks of nothing. */
  uses?(value: Value, field: Shape): Uses;
  /** The same value with other references; absent where it has none. */
  withReferences?(value: Value, map: ReferenceMap): Value;
  /** The series in whose unit it is given; absent where it has no such unit. */
  unitSeries?(value: Value, field: Shape, values: Readonly<Record<string, unknown>>): SeriesRef | null;
  /** The same value in the units of a run; what is undefined stands as it is. */
  inUnits?(value: Value, field: Shape, units: UnitsHere): Value | undefined;
}

/** Declares a type of fields. */
export const defineFieldType = <Shape, Value>(type: FieldType<Shape, Value>): FieldType<Shape, Value> => type;
