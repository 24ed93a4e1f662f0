import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { type z } from 'zod';

/** What a small file of ours holds, or null where it is missing, empty, cut off or not what it should be. */
export function readKept<T>(file: string, schema: z.ZodType<T>): T | null {
  if (!existsSync(file)) return null;
  try {
    const parsed = schema.safeParse(JSON.parse(readFileSync(file, 'utf8')));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}

/** Writes a small file so that it is either the old one or the new one, never a piece. */
export function writeKept(file: string, value: unknown): void {
  const making = `${file}.making`;
  writeFileSync(making, JSON.stringify(value), { mode: 0o600 });
  renameSync(making, file);
}
