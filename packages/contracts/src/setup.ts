import { z } from 'zod';
import { finite, plainText } from './basics';
import { keySchema } from './link';

/** How an investigation uses one channel of a device; what is not said is as usual. */
export const channelSetupSchema = z
  .object({
    /** Whether it takes part in runs. */
    on: z.boolean(),
    range: keySchema,
    reversed: z.boolean(),
    /** UCUM code of the unit in which it is shown and recorded. */
    unit: plainText.pipe(z.string().max(20)),
    symbol: plainText
      .transform((text) => text.trim())
      .pipe(z.string().min(1, 'a symbol needs a letter').max(8)),
    quantity: plainText
      .transform((text) => text.trim())
      .pipe(z.string().min(1, 'a name needs a letter').max(40)),
    /** Whether every run begins at zero. */
    zeroAtStart: z.boolean(),
  })
  .partial()
  .strict();
export type ChannelSetup = z.infer<typeof channelSetupSchema>;

/** How an investigation uses a device: rates by stream, the rest by channel. */
export const setupSchema = z
  .object({
    rates: z.record(keySchema, finite.positive('a sample rate is a positive number of hertz')),
    channels: z.record(keySchema, channelSetupSchema),
  })
  .strict();
export type Setup = z.infer<typeof setupSchema>;

export const usualSetup: Setup = { rates: {}, channels: {} };

export const zeroSchema = z.object({
  /** In the device's own unit, before sign and unit. */
  offset: finite,
  spread: finite,
  /** Standard uncertainty of the offset, in the same unit; absent where it was kept before that was known. */
  uncertainty: finite.nonnegative().optional(),
  at: z.string(),
});
export type Zero = z.infer<typeof zeroSchema>;

/** Two readings whose true values were typed; what the device says is multiplied by `gain`. */
export const scaleSchema = z.object({
  gain: finite.refine((gain) => gain !== 0, 'a gain is not zero'),
  /** `uncertainty` is that of what was read; absent where it was kept before that was known. */
  points: z
    .array(z.object({ read: finite, known: finite, uncertainty: finite.nonnegative().optional() }))
    .length(2),
  at: z.string(),
});
export type Scale = z.infer<typeof scaleSchema>;

/** What belongs to a device wherever it is used, and is kept with it. */
export const calibrationSchema = z
  .object({
    zeros: z.record(keySchema, zeroSchema),
    scales: z.record(keySchema, scaleSchema),
    numbers: z.record(keySchema, finite),
  })
  .strict();
export type Calibration = z.infer<typeof calibrationSchema>;

export const noCalibration: Calibration = { zeros: {}, scales: {}, numbers: {} };

/** What was applied to a recorded channel: stored = scale × sent + offset. */
export const appliedSchema = z.object({
  scale: finite,
  offset: finite,
  range: z.string(),
  zero: zeroSchema.nullable(),
  twoPoint: scaleSchema.nullable(),
  reversed: z.boolean(),
  /** The zero was taken from the first readings of the run itself. */
  zeroedAtStart: z.boolean(),
  numbers: z.record(z.string(), finite),
});
export type Applied = z.infer<typeof appliedSchema>;
