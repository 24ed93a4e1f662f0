import { z } from 'zod';
import { finite } from './basics';
import { type DocumentFormat, readDocument } from './documents';

/** Which channel of which device a quantity of the runs comes from, so that a run's x is always the same sensor. */
export const bindingSchema = z.object({
  key: z.string().min(1).max(12),
  code: z.string().min(1).max(20),
  channel: z.string().min(1).max(32),
});
export type Binding = z.infer<typeof bindingSchema>;

/** Ways in which a run begins. Adding one: its schema here, and a file in the recorder's `beginnings` with its line there. */
export const beginningSchema = z.discriminatedUnion('kind', [z.object({ kind: z.literal('at-once') })]);
export type Beginning = z.infer<typeof beginningSchema>;

export const planSchema = z.object({
  format: z.literal(2),
  /** How long a run lasts; null until somebody stops it. */
  lengthSeconds: finite
    .min(0.1, 'a run lasts at least 0.1 s')
    .max(86_400, 'a run lasts at most a day')
    .nullable(),
  begin: beginningSchema,
  bindings: z.array(bindingSchema).max(64),
});
export type Plan = z.infer<typeof planSchema>;

export const usualPlan: Plan = { format: 2, lengthSeconds: 8, begin: { kind: 'at-once' }, bindings: [] };

const planFormat: DocumentFormat<Plan> = {
  title: 'plan',
  format: 2,
  schema: planSchema,
  steps: [(older) => ({ ...older, begin: { kind: 'at-once' }, bindings: [] })],
};

/** A stored plan of any known format in today's form. @throws UnreadableDocument */
export const readPlan = (stored: unknown): Plan => readDocument(planFormat, stored);
