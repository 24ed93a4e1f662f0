import { z } from 'zod';

/** A stored document that this program cannot read: made by a newer one, or damaged. The message is for people. */
export class UnreadableDocument extends Error {
  override readonly name = 'UnreadableDocument';
}

type Plain = Record<string, unknown>;

/**
 * A kind of stored document with its format number and the steps that lead from every older format to today's. Adding a
 * format: a step, and a kept example of the older one under test.
 */
export interface DocumentFormat<T> {
  /** What people call such a document, and whether it is one or many. */
  title: string;
  isMany: boolean;
  format: number;
  schema: z.ZodType<T, unknown>;
  /** Step i makes format i + 2 of format i + 1. */
  steps: readonly ((older: Plain) => Plain)[];
}

/**
 * Reads a stored document of any known format in today's form.
 * @throws UnreadableDocument where the format is newer than this program, or the document is damaged
 */
export function readDocument<T>(
  { title, isMany, format, schema, steps }: DocumentFormat<T>,
  stored: unknown,
): T {
  const [are, were] = isMany ? ['are', 'were'] : ['is', 'was'];
  const parsed = z.record(z.string(), z.unknown()).safeParse(stored);
  if (!parsed.success) throw new UnreadableDocument(`The ${title} ${are} damaged: they are no document.`);
  let document = parsed.data;
  const found = typeof document.format === 'number' ? document.format : 1;
  if (found > format)
    throw new UnreadableDocument(
      `The ${title} ${were} made by a newer Heuristor (format ${found}, this one reads up to ${format}). Update Heuristor to open this.`,
    );
  try {
    for (let step = found; step < format; step++)
      document = { ...steps[step - 1](document), format: step + 1 };
  } catch {
    throw new UnreadableDocument(`The ${title} ${are} damaged: they do not keep to format ${found}.`);
  }
  const result = schema.safeParse(document);
  if (result.success) return result.data;
  const [issue] = result.error.issues;
  throw new UnreadableDocument(
    `The ${title} ${are} damaged at ${issue.path.join('.') || 'their root'}: ${issue.message}.`,
  );
}
