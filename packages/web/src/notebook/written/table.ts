import { z } from 'zod';

/** A table as it is written: a head, and rows that begin with what they are of. */
const writtenSchema = z.object({
  head: z.array(z.string()),
  rows: z.array(z.array(z.string())),
});
export type Written = z.infer<typeof writtenSchema>;

/** The table as it was frozen; null where it follows. */
export function frozenTable(stored: unknown): Written | null {
  if (typeof stored !== 'string' || stored === '') return null;
  try {
    return writtenSchema.parse(JSON.parse(stored));
  } catch {
    return null;
  }
}
