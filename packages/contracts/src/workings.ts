import { type Line, type SeriesRef, relationKeys } from '@heuristor/core';
import { z } from 'zod';

const finite = z.number().refine(Number.isFinite, 'must be a finite number');
const id = z.string().min(1).max(40);
const name = z.string().max(80);

export const seriesRefSchema = z
  .string()
  .max(120)
  .regex(/^(t|channel:.+|line:.+)$/, 'a series is "t", "channel:<key>" or "line:<id>"')
  .transform((text) => text as SeriesRef);

const onRegion = { id, name, region: id.nullable(), of: seriesRefSchema };

export const lineSchema: z.ZodType<Line, unknown> = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('region'),
    id,
    name,
    letter: z.string().regex(/^[A-Z]{1,2}$/),
    along: seriesRefSchema,
    start: finite,
    end: finite,
  }),
  z.object({
    kind: z.literal('derivative'),
    id,
    name: name.min(1),
    of: seriesRefSchema,
    windowPoints: z
      .number()
      .int()
      .min(3)
      .max(1001)
      .refine((n) => n % 2 === 1, 'windowPoints must be odd'),
  }),
  z.object({ kind: z.literal('integral'), id, name: name.min(1), of: seriesRefSchema }),
  z.object({ kind: z.literal('statistics'), ...onRegion }),
  z.object({ kind: z.literal('slope'), ...onRegion, against: seriesRefSchema }),
  z.object({ kind: z.literal('area'), ...onRegion, against: seriesRefSchema }),
  z.object({
    kind: z.literal('fit'),
    ...onRegion,
    against: seriesRefSchema,
    relation: z.enum(relationKeys),
    showResiduals: z.boolean(),
  }),
]);

/** The workings as they are stored: the lines, and how their traces are laid out. */
export const workingsSchema = z
  .object({
    format: z.literal(1),
    lines: z.array(lineSchema).max(200),
    /** What the shared horizontal axis shows. */
    horizontal: seriesRefSchema,
    /** The stacked traces, from the top. Empty: one for each channel. */
    traces: z.array(seriesRefSchema).max(12),
  })
  .refine(
    ({ lines }) => new Set(lines.map((line) => line.id)).size === lines.length,
    'every line needs an id of its own',
  );
export type WorkingsDocument = z.infer<typeof workingsSchema>;

export const emptyWorkings: WorkingsDocument = { format: 1, lines: [], horizontal: 't', traces: [] };
