import { type FieldTypeKey, type FieldValue } from '@heuristor/core';
import { anchor } from './anchor';
import { choice } from './choice';
import { type FieldEditor } from './field';
import { formula } from './formula';
import { integer } from './integer';
import { number } from './number';
import { parameters } from './parameters';
import { region } from './region';
import { regions } from './regions';
import { result } from './result';
import { series } from './series';
import { text } from './text';

/** The editor of every type of fields, a line each; null of what is changed elsewhere. */
export const fieldEditors: {
  readonly [K in FieldTypeKey]: FieldEditor<K, FieldValue<{ type: K }>> | null;
} = {
  series,
  region,
  regions,
  choice,
  integer,
  number,
  text,
  result,
  formula,
  parameters,
  anchor,
  // Switched in the menu of the entry.
  flag: null,
  // Moved by a hand over the traces.
  ownIntervals: null,
};
