import { z } from 'zod';
import { type DocumentFormat, readDocument } from './documents';
import { entrySchema, seriesRefSchema } from './entrySchema';

/** The workings as they are stored: the entries, and how their traces are laid out. */
export const workingsSchema = z
  .object({
    format: z.literal(2),
    entries: z.array(entrySchema).max(200),
    /** What the shared horizontal axis shows. */
    horizontal: seriesRefSchema,
    /** The stacked traces, from the top. Empty: one for each channel. */
    traces: z.array(seriesRefSchema).max(12),
  })
  .refine(
    ({ entries }) => new Set(entries.map(({ id }) => id)).size === entries.length,
    'every entry needs an id of its own',
  );
export type WorkingsDocument = z.infer<typeof workingsSchema>;

export const emptyWorkings: WorkingsDocument = { format: 2, entries: [], horizontal: 't', traces: [] };

/** References of format 1 called an entry a line. */
const renamedReferences = (value: unknown): unknown => {
  if (typeof value === 'string') return value.replace(/^line:/, 'entry:');
  if (Array.isArray(value)) return value.map(renamedReferences);
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(
      Object.entries(value).map(([key, inner]) => [key, key === 'name' ? inner : renamedReferences(inner)]),
    );
  return value;
};

export const workingsFormat: DocumentFormat<WorkingsDocument> = {
  title: 'workings',
  isMany: true,
  format: 2,
  schema: workingsSchema,
  steps: [
    ({ lines, ...rest }) => ({
      ...(renamedReferences(rest) as Record<string, unknown>),
      entries: renamedReferences(lines),
    }),
  ],
};

/** Stored workings of any known format in today's form. @throws UnreadableDocument */
export const readWorkings = (stored: unknown): WorkingsDocument => readDocument(workingsFormat, stored);
