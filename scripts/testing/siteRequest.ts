import { z } from 'zod';

/** What a test asks of the site that it drives. */
export const siteRequestSchema = z.object({
  /** Who asks: each worker has sites of its own. */
  worker: z.string(),
  /** Whether it is nobody else's, because it is killed or changed. */
  own: z.boolean(),
  /** The demo data, or an empty database. */
  demo: z.boolean(),
  /** How many times as fast as on the wall time passes for sensors and what records them. */
  pace: z.number().positive(),
  /** A name under which it is opened, as from another machine: browsers let pages do less there. */
  host: z.string().nullable(),
  /** Settings of the server. */
  settings: z.record(z.string(), z.string()),
});
export type SiteRequest = z.infer<typeof siteRequestSchema>;

/** What a test is told of the site that it drives. */
export interface SiteAnswer {
  id: number;
  address: string;
  browser: string;
  folder: string;
}
