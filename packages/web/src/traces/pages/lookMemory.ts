import { z } from 'zod';
import { type Look } from './look';

const range = z.object({ from: z.number(), to: z.number() });
const lookSchema = z.object({
  sight: range.nullable(),
  scales: z.record(z.string(), range),
  reach: z.enum(['shown', 'all']),
  withZero: z.boolean().nullable(),
  enlarged: z.string().nullable(),
}) satisfies z.ZodType<Look>;
const looksSchema = z.record(z.string(), lookSchema);

/** How pages were looked at, by their ids. */
export type Looks = Readonly<Record<string, Look>>;

/** Keeps how pages are looked at, so that a page that is loaded anew shows what it showed. */
export interface LookMemory {
  load(): Looks;
  save(looks: Looks): void;
}

/** A memory that lasts as long as the browser's tab: how something is looked at is nobody else's business. */
export const tabMemory = (investigation: string): LookMemory => {
  const key = `looks of ${investigation}`;
  return {
    load() {
      try {
        return looksSchema.parse(JSON.parse(sessionStorage.getItem(key) ?? '{}'));
      } catch {
        // What cannot be read, or may not be, is looked at as usual.
        return {};
      }
    },
    save(looks) {
      try {
        sessionStorage.setItem(key, JSON.stringify(looks));
      } catch {
        // A browser that keeps nothing forgets this too.
      }
    },
  };
};
