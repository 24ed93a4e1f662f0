import { type Entry, type Field, type Fields, entryKindKeys, eventTitles, kindOf } from '@heuristor/core';
import { z } from 'zod';
import { finite } from './basics';

const id = z.string().min(1).max(40);
const name = z.string().max(80);

export const seriesRefSchema = z
  .string()
  .max(160)
  .regex(/^(t|channel:.+|entry:.+)$/, 'a series is "t", "channel:<key>" or "entry:<id>"')
  .transform((text) => text as 't' | `channel:${string}` | `entry:${string}`);

const resultRefSchema = z
  .string()
  .max(160)
  .regex(/^result:.+\/.+$/, 'a result is "result:<entry>/<key>"');

const formulaSchema = z.object({
  text: z.string().max(500),
  names: z.record(z.string().min(1).max(160), z.union([seriesRefSchema, resultRefSchema])),
});

const parametersSchema = z.record(
  z.string().min(1).max(160),
  z.object({
    start: finite.nullable(),
    held: z.boolean(),
    low: finite.nullable(),
    high: finite.nullable(),
    toldIn: z.string().min(1).max(80).optional(),
  }),
);

const eventSchema = z.enum(Object.keys(eventTitles) as [keyof typeof eventTitles]);

const anchorSchema = z.object({
  event: eventSchema,
  of: seriesRefSchema,
  level: finite,
  count: z.number().int().min(1).max(1000),
  offset: finite,
});

const ownStretchesSchema = z
  .array(
    z
      .object({ run: z.string().min(1).max(40), start: finite, end: finite })
      .refine(({ start, end }) => end > start, 'a region ends after it starts'),
  )
  .max(500);

/** The schema of one declared field. What was stored before a field was there gets its usual value. */
function schemaOf(field: Field): z.ZodType {
  switch (field.type) {
    case 'series':
      return field.axis
        ? seriesRefSchema
        : seriesRefSchema.refine((reference) => reference !== 't', 'the abscissa cannot stand here');
    case 'region':
      return id.nullable();
    case 'choice':
      return z
        .enum(field.options.map(({ key }) => key) as [string, ...string[]])
        .default(field.options[0].key);
    case 'integer': {
      const { low, high, odd, label } = field;
      const whole = z.number().int().min(low).max(high);
      const right = odd ? whole.refine((n) => n % 2 === 1, `${label} must be odd`) : whole;
      return right.default(field.usual);
    }
    case 'number':
      return (field.low === null ? finite : finite.min(field.low)).default(field.usual);
    case 'flag':
      return z.boolean().default(field.usual);
    case 'text': {
      const text = z.string().max(field.most);
      return (field.pattern === null ? text : text.regex(field.pattern)).default(field.usual);
    }
    case 'result':
      return resultRefSchema;
    case 'formula':
      return formulaSchema;
    case 'parameters':
      return parametersSchema.default(field.usual);
    case 'anchor':
      return anchorSchema.nullable().default(field.usual);
    case 'regions':
      return z
        .array(id)
        .max(20)
        .default([...field.usual]);
    case 'ownStretches':
      return ownStretchesSchema.default([...field.usual]);
  }
}

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
