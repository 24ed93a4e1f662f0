import { z } from 'zod';
import { finite, idSchema, plainText } from './basics';

/** Points of a sketch at most. */
export const mostSketched = 400;

/** What somebody has answered to a question of a guide; free words stand in the notebook as a text of their own. */
export const guideAnswerSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('choice'), chosen: z.array(z.string().max(40)).max(40) }).strict(),
  /** As it was typed, with its unit. */
  z.object({ kind: z.literal('number'), text: plainText.pipe(z.string().max(80)) }).strict(),
  /** A result of the workings; `then` is how it read when it was chosen. */
  z
    .object({
      kind: z.literal('result'),
      run: idSchema,
      entry: z.string().max(160),
      key: z.string().max(80),
      then: plainText.pipe(z.string().max(200)),
    })
    .strict(),
  z
    .object({
      kind: z.literal('sketch'),
      points: z.array(z.tuple([finite, finite])).max(mostSketched),
    })
    .strict(),
]);
export type GuideAnswer = z.infer<typeof guideAnswerSchema>;
export type GuideAnswerOf<K extends GuideAnswer['kind']> = Extract<GuideAnswer, { kind: K }>;

/** An answer that is to be checked. */
export const askedCheckSchema = z
  .object({ item: z.string().min(1).max(40), answer: guideAnswerSchema })
  .strict();
export type AskedCheck = z.infer<typeof askedCheckSchema>;

/** What was found; how often one may still ask, null where that does not matter any more. */
export const checkedSchema = z.object({
  isRight: z.boolean(),
  /** What else is to be said of the answer; '' for nothing. */
  says: z.string(),
  left: z.number().int().nullable(),
});
export type Checked = z.infer<typeof checkedSchema>;

/** How somebody stands with a guide. */
export const guideStandingSchema = z.object({
  mayWrite: z.boolean(),
  /** The last check of each question that was checked. */
  checked: z.array(checkedSchema.extend({ item: z.string(), answer: guideAnswerSchema })),
});
export type GuideStanding = z.infer<typeof guideStandingSchema>;
