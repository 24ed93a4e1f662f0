import { type StoredEvaluation } from '@heuristor/core';
import { z } from 'zod';
import { seriesRefSchema } from './entrySchema';
import { mostOnSheet } from './workings';

const number = z.union([z.number(), z.enum(['NaN', 'Infinity', '-Infinity'])]);
const notes = z.array(z.string());
const place = z.number().int().nonnegative();

const outcomeSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('refused'),
    sentence: z.string(),
    lacks: z.string().optional(),
    isFault: z.literal(true).optional(),
  }),
  z.object({ kind: z.literal('region'), start: number, end: number, notes }),
  z.object({
    kind: z.literal('series'),
    symbol: z.string(),
    quantity: z.string(),
    unit: z.string(),
    count: place,
    notes,
  }),
  z.object({ kind: z.literal('results'), notes }),
]);

/** What sheets say of one run, as it is stored and sent; the core says what it means (`evaluation/stored.ts`). */
export const storedEvaluationSchema = z.object({
  runId: z.string(),
  sheets: z.array(z.record(z.string(), outcomeSchema)),
  results: z.array(
    z.object({
      sheet: place,
      entry: z.string(),
      region: z.string().nullable(),
      field: z.string(),
      name: z.string(),
      value: number,
      unit: z.string(),
      standardUncertainty: number.nullable(),
      degreesOfFreedom: number.nullable(),
      roundTo: number.nullable(),
      main: z.boolean(),
    }),
  ),
  shared: z.array(
    z.object({ root: z.string(), label: z.string(), moves: z.array(z.tuple([place, number])) }),
  ),
  own: z.array(
    z.object({
      root: z.string(),
      label: z.string(),
      results: z.array(place),
      covariance: z.array(number),
    }),
  ),
  repeats: z.array(
    z.object({
      sheet: place,
      of: seriesRefSchema,
      symbol: z.string(),
      unit: z.string(),
      values: z.array(number),
      uncertainties: z.array(number),
      together: z.array(z.object({ root: z.string(), label: z.string(), effects: z.array(number) })),
    }),
  ),
}) satisfies z.ZodType<StoredEvaluation>;

/** So many runs can be asked about at once. */
export const mostOutcomesAtOnce = 50;

/** So many runs can be asked about at once where nothing is to be worked out. */
export const mostKeptAtOnce = 150;

/** So many results of one run can be worked out over values of a constant at once. */
export const mostAcross = { values: 101, entries: mostOnSheet.entries } as const;

/** What one's own sheet says of several runs; of one that cannot be evaluated, why; and of which nothing was kept, where only that is asked. */
export const outcomesOfRunsSchema = z.array(
  z.union([
    z.strictObject({ runId: z.string(), failed: z.string() }),
    z.strictObject({ runId: z.string(), notKept: z.literal(true) }),
    storedEvaluationSchema,
  ]),
);
export type OutcomesOfRuns = z.infer<typeof outcomesOfRunsSchema>;
