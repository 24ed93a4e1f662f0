import { z } from 'zod';
import { finite, plainText } from './basics';

/** A line that a person follows with a quantity of the runs: straight from point to point, flat before and after. */
export const paceTargetSchema = z.object({
  /** Key of the quantity. */
  quantity: z.string().min(1).max(12),
  /** Whether the line tells the reading itself or how fast it changes. */
  of: z.enum(['reading', 'speed']),
  /** UCUM code; of a speed it is that of the reading over seconds. */
  unit: plainText.pipe(z.string().max(40)),
  points: z
    .array(z.object({ t: finite.min(0), value: finite }))
    .min(2, 'a line has at least two points')
    .max(400, 'a line has at most 400 points')
    .refine(
      (points) => points.every(({ t }, i) => i === 0 || t > points[i - 1].t),
      'the points of a line follow each other in time',
    ),
  /** Where it comes from. */
  made: z.discriminatedUnion('kind', [
    z.object({
      kind: z.literal('generated'),
      seed: z.number().int().min(0),
      level: z.number().int().min(1).max(4),
    }),
    z.object({ kind: z.literal('drawn') }),
    z.object({ kind: z.literal('run'), name: plainText.pipe(z.string().max(120)) }),
  ]),
});
export type PaceTarget = z.infer<typeof paceTargetSchema>;
