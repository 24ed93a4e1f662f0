import { z } from 'zod';
import { finite, idSchema, nameSchema, plainText } from './basics';
import { channelSchema } from './channels';
import { linkChannelSchema, stageSchema } from './link';
import { planSchema } from './plan';
import { workingsSchema } from './workings';

export const gapSchema = z.object({ channel: z.string(), from: finite, to: finite });
export type Gap = z.infer<typeof gapSchema>;

/** A few points of the first channel of a run, for small pictures. */
export const previewSchema = z.object({ x: z.array(finite), y: z.array(finite.nullable()) });
export type Preview = z.infer<typeof previewSchema>;

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
  /** Sentences about what went wrong while it was recorded. */
  notes: z.array(z.string()),
  channels: z.array(channelSchema),
});
export type Run = z.infer<typeof runSchema>;

export const runPatchSchema = z
  .object({
    name: nameSchema,
    shown: z.boolean(),
    style: z.number().int().min(0).max(7),
    removed: z.boolean(),
  })
  .partial()
  .strict();
export type RunPatch = z.infer<typeof runPatchSchema>;

export const investigationSummarySchema = z.object({
  id: z.string(),
  name: z.string(),
  runCount: z.number().int(),
  entryCount: z.number().int(),
  usedAt: z.string(),
  /** Small pictures of up to three runs. */
  previews: z.array(previewSchema.extend({ style: z.number().int() })),
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
/** Of a plan only what a person sets; bindings are the recorder's. */
export const planPatchSchema = planSchema.pick({ lengthSeconds: true, begin: true }).partial().strict();
export const investigationPatchSchema = z
  .object({ name: nameSchema, plan: planPatchSchema })
  .partial()
  .strict();
export type InvestigationPatch = z.infer<typeof investigationPatchSchema>;

export const workingsPutSchema = z
  .object({
    version: z
      .number()
      .int()
      .min(0)
      .max(2 ** 31 - 1),
    workings: workingsSchema,
  })
  .strict();
export const workingsVersionSchema = z.object({ version: z.number().int() });
export const storedWorkingsSchema = z.object({ version: z.number().int(), workings: workingsSchema });
export const signInSchema = z.object({ token: plainText.pipe(z.string().min(1).max(200)) }).strict();
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
  /** From another machine, and not let in yet. */
  waiting: z.boolean(),
  rate: finite,
  rates: z.object({ lowest: finite, highest: finite, usual: finite }),
  reversed: z.boolean(),
  channels: z.array(linkChannelSchema),
  zeros: z.record(z.string(), zeroSchema),
  stage: stageSchema.nullable(),
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

/** The largest file of columns, in bytes; it is said wherever a file is chosen. */
export const largestImportBytes = 256 * 1024 * 1024;

const decimalSchema = z.enum(['.', ',']);

/** A file of columns on its way to become runs. */
export const importSchema = z.object({
  id: idSchema,
  name: z.string(),
  state: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('reading'), share: z.number() }),
    z.object({ kind: z.literal('question'), example: z.string(), encoding: z.string() }),
    z.object({ kind: z.literal('refused'), sentence: z.string() }),
    z.object({
      kind: z.literal('ready'),
      encoding: z.string(),
      separator: z.string(),
      decimal: decimalSchema,
      rows: z.number().int(),
      runs: z.array(
        z.object({
          name: z.string(),
          channels: z.array(
            z.object({
              name: z.string(),
              unit: z.string(),
              count: z.number().int(),
              against: z.string(),
              first: z.array(finite.nullable()),
            }),
          ),
        }),
      ),
    }),
    z.object({ kind: z.literal('storing'), share: z.number() }),
    z.object({ kind: z.literal('stored') }),
  ]),
});
export type Import = z.infer<typeof importSchema>;
/** Names and units of a file's runs and columns, in its order, as they were mended in the preview. */
const importNamesSchema = z.array(
  z.object({
    name: nameSchema,
    channels: z.array(
      z.object({
        name: plainText
          .transform((text) => text.trim())
          .pipe(z.string().min(1, 'a column needs a name').max(60, 'a column’s name has 60 letters at most')),
        unit: plainText.max(60, 'a unit has 60 letters at most'),
      }),
    ),
  }),
);
export type ImportNames = z.infer<typeof importNamesSchema>;
export const importKeepSchema = z.object({ runs: importNamesSchema.optional() }).strict();
export const importAnswerSchema = z.object({ decimal: decimalSchema }).strict();
