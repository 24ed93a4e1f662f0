import { type Field, type FieldTypeKey } from '@heuristor/core';
import { type z } from 'zod';
import { anchor } from './anchor';
import { choice } from './choice';
import { type FieldSchema } from './fieldSchema';
import { flag } from './flag';
import { formula } from './formula';
import { integer } from './integer';
import { number } from './number';
import { ownIntervals } from './ownIntervals';
import { parameters } from './parameters';
import { region } from './region';
import { regions } from './regions';
import { result } from './result';
import { series } from './series';
import { text } from './text';

/** The schema of every type of fields, a line each. */
const fieldSchemas: { readonly [K in FieldTypeKey]: FieldSchema<K> } = {
  series,
  region,
  regions,
  choice,
  integer,
  number,
  flag,
  text,
  result,
  formula,
  parameters,
  anchor,
  ownIntervals,
};

/** The schema of one declared field. */
export const schemaOf = (field: Field): z.ZodType =>
  // A field and its schema carry the same key, which the type system cannot follow through the look-up.
  (fieldSchemas[field.type] as (field: Field) => z.ZodType)(field);
