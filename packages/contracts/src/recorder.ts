import { z } from 'zod';
import { finite } from './basics';
import { levelSchema } from './plan';

/** Which run of a row it is, and how many there are to be. */
const row = { number: z.number().int(), times: z.number().int().nullable() };

/** What the recorder of an investigation does. */
export const recorderStatusSchema = z.discriminatedUnion('phase', [
  z.object({ phase: z.literal('idle') }),
  z.object({ phase: z.literal('countdown'), ...row, secondsLeft: finite }),
  z.object({
    phase: z.literal('waiting'),
    ...row,
    for: z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('level'),
        level: levelSchema,
        /** The level in the unit in which the channel is shown. */
        threshold: finite,
        /** Where it rests, of a quantity whose runs begin at zero: the reading shown that will be zero. */
        rest: finite.nullable(),
        device: z.string(),
        channel: z.string(),
      }),
      z.object({ kind: z.literal('switch'), quantity: z.string(), to: z.enum(['on', 'off']) }),
    ]),
  }),
  z.object({
    phase: z.literal('recording'),
    ...row,
    /** It is over, but for what a device has read while its link was broken; the code of that. */
    waitsFor: z.string().nullable(),
  }),
  /** Complete; its rest is being stored. */
  z.object({ phase: z.literal('ending'), ...row }),
]);
export type RecorderStatus = z.infer<typeof recorderStatusSchema>;
