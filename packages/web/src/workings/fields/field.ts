import { type Entry, type Field, type FieldTypeKey } from '@heuristor/core';
import { type ReactNode } from 'react';

/** What the editor of a field is told. */
export interface FieldProps<K extends FieldTypeKey, Value> {
  /** Of its control, which its label speaks of. */
  id: string;
  /** Its name in the entry. */
  name: string;
  field: Field<K>;
  entry: Entry;
  value: Value;
  set(value: Value): void;
  /** Called when it is done with by the keyboard. */
  onDone?: (() => void) | undefined;
}

/** The editor of a type of fields. */
export interface FieldEditor<K extends FieldTypeKey, Value> {
  Control: (props: FieldProps<K, Value>) => ReactNode;
  /** True where it brings its own label, and takes the whole row. */
  isRow?: true;
}
