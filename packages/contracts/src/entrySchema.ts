import { type Entry, type Fields, entryKindKeys, kindOf } from '@heuristor/core';
import { z } from 'zod';
import { schemaOf } from './fieldSchemas';
import { entryId as id } from './fieldSchemas/fieldSchema';

export { seriesRefSchema } from './fieldSchemas/fieldSchema';

const name = z.string().max(80);

/** A later field may be missing, and stays so: its kind knows what that means. */
const optional = (schema: z.ZodType) =>
  (schema instanceof z.ZodDefault ? (schema.unwrap() as z.ZodType) : schema).optional();

const shapeOf = (fields: Fields) =>
  Object.fromEntries(
    Object.entries(fields).map(([key, field]) => [
      key,
      field.later === true ? optional(schemaOf(field)) : schemaOf(field),
    ]),
  );

const schemas = entryKindKeys.map((key) => {
  const { fields, yields } = kindOf(key);
  // A derived series is known by its name, so it needs one.
  const ownName = yields === 'series' ? name.min(1) : name;
  return z.object({
    kind: z.literal(key),
    id,
    name: ownName,
    note: z.string().max(2000).optional(),
    folded: z.boolean().optional(),
    shownIn: z.record(z.string().min(1).max(80), z.string().max(40)).optional(),
    toldIn: z.record(z.string().min(1).max(160), z.string().min(1).max(80)).optional(),
    ...shapeOf(fields),
  });
});

/** Every kind of entry, as its kind declares it. */
export const entrySchema = z.discriminatedUnion(
  'kind',
  schemas as unknown as [(typeof schemas)[number], ...(typeof schemas)[number][]],
) as unknown as z.ZodType<Entry, unknown>;
