import { z } from 'zod';
import { deviceCodeSchema, linkChannelSchema, stageControlSchema } from './link';
import { workingsSchema } from './workings';

const finite = z.number().refine(Number.isFinite, 'must be a finite number');
export const idSchema = z.uuid('an id is a UUID');
const nameSchema = z.string().trim().min(1, 'a name needs at least one character').max(120);

export const planSchema = z.object({
  /** How long a run lasts; null until somebody stops it. */
  lengthSeconds: finite
    .min(0.1, 'a run lasts at least 0.1 s')
    .max(86_400, 'a run lasts at most a day')
    .nullable(),
});
export type Plan = z.infer<typeof planSchema>;

export const gapSchema = z.object({ channel: z.string(), from: finite, to: finite });
export type Gap = z.infer<typeof gapSchema>;

export const channelSchema = z.object({
  id: z.number().int(),
  key: z.string(),
  symbol: z.string(),
  quantity: z.string(),
  unit: z.string(),
  timeUnit: z.string(),
  /** Seconds between readings; null where the times are stored with the readings. */
  interval: finite.nullable(),
  /** Time of the first reading, in seconds. */
  start: finite,
  low: finite.nullable(),
  high: finite.nullable(),
  deviceCode: z.string().nullable(),
  zero: finite,
  reversed: z.boolean(),
});
export type Channel = z.infer<typeof channelSchema>;

export const runSchema = z.object({
  id: z.string(),
  investigationId: z.string(),
  number: z.number().int(),
  name: z.string(),
  origin: z.enum(['recorded', 'imported']),
  state: z.enum(['recording', 'ended', 'interrupted']),
  shown: z.boolean(),
  /** Place in the row of colours and dashes. */
  style: z.number().int().min(0).max(7),
  startedAt: z.string(),
  removed: z.boolean(),
  gaps: z.array(gapSchema),
  channels: z.array(channelSchema),
});
export type Run = z.infer<typeof runSchema>;

export const runPatchSchema = z
  .object({ name: nameSchema, shown: z.boolean(), style: z.number().int().min(0).max(7) })
  .partial()
  .strict();
export type RunPatch = z.infer<typeof runPatchSchema>;

export const investigationSummarySchema = z.object({
  id: z.string(),
  name: z.string(),
  runCount: z.number().int(),
  lineCount: z.number().int(),
  updatedAt: z.string(),
});
export type InvestigationSummary = z.infer<typeof investigationSummarySchema>;

export const investigationSchema = z.object({
  id: z.string(),
  name: z.string(),
  plan: planSchema,
  workings: workingsSchema,
  workingsVersion: z.number().int(),
  runs: z.array(runSchema),
});
export type Investigation = z.infer<typeof investigationSchema>;

export const newInvestigationSchema = z.object({ name: nameSchema }).strict();
export const investigationPatchSchema = z.object({ name: nameSchema, plan: planSchema }).partial().strict();
export type InvestigationPatch = z.infer<typeof investigationPatchSchema>;

export const workingsPutSchema = z.object({ version: z.number().int(), workings: workingsSchema }).strict();
export const workingsVersionSchema = z.object({ version: z.number().int() });
export const signInSchema = z.object({ token: z.string().min(1).max(200) }).strict();
export const teacherSchema = z.object({ name: z.string() });

export const zeroSchema = z.object({ offset: finite, spread: finite, at: z.string() });
export type Zero = z.infer<typeof zeroSchema>;

export const deviceSchema = z.object({
  code: z.string(),
  model: z.string(),
  /** Number of this device in live frames. */
  handle: z.number().int(),
  /** Chosen for this bench by the teacher. */
  connected: z.boolean(),
  /** On the link right now. */
  present: z.boolean(),
  rate: finite,
  rates: z.object({ lowest: finite, highest: finite, usual: finite }),
  reversed: z.boolean(),
  channels: z.array(linkChannelSchema),
  zeros: z.record(z.string(), zeroSchema),
  stage: z
    .object({
      apparatus: z.enum(['buoy', 'lifeboat']),
      title: z.string(),
      controls: z.array(stageControlSchema),
    })
    .nullable(),
});
export type Device = z.infer<typeof deviceSchema>;

export const devicePatchSchema = z
  .object({
    connected: z.boolean(),
    rate: finite.positive('a sample rate is a positive number of hertz'),
    reversed: z.boolean(),
  })
  .partial()
  .strict();
export type DevicePatch = z.infer<typeof devicePatchSchema>;
export { deviceCodeSchema };
