import { z } from 'zod';
import { finite, idSchema } from './basics';

/** Something that may wait until the server has time for it. */
export const jobSchema = z.object({
  id: z.number().int(),
  kind: z.string(),
  state: z.enum(['waiting', 'running', 'done', 'failed', 'cancelled']),
  /** How much of it is done, from 0 to 1. */
  share: finite,
  /** Why it failed. */
  sentence: z.string().nullable(),
});
export type Job = z.infer<typeof jobSchema>;

/** Works out what workings say of many runs, so that it is there when it is asked for. */
export const workOutSchema = z.object({
  /** Runs of the investigation; all of them where nothing is said. */
  runs: z.array(idSchema).min(1).max(1000).optional(),
});
