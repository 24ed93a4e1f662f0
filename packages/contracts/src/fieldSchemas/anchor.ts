import { eventTitles } from '@heuristor/core';
import { z } from 'zod';
import { finite } from '../basics';
import { type FieldSchema, seriesRefSchema } from './fieldSchema';

const eventSchema = z.enum(Object.keys(eventTitles) as [keyof typeof eventTitles]);

const anchorSchema = z.object({
  event: eventSchema,
  of: seriesRefSchema,
  level: finite,
  count: z.number().int().min(1).max(1000),
  offset: finite,
});

export const anchor: FieldSchema<'anchor'> = ({ usual }) => anchorSchema.nullable().default(usual);
