import { z } from 'zod';
import { finite, plainText } from './basics';
import { conditionColumnSchema, conditionValuesSchema, groupSchema, plannedKey } from './conditions';
import { type DocumentFormat, readDocument } from './documents';
import { paceTargetSchema } from './pace';
import { spotPlanSchema, usualSpotPlan } from './spots';

/** Which channel of which device a quantity of the runs comes from, so that a run's x is always the same sensor. */
export const bindingSchema = z.object({
  key: z.string().min(1).max(12),
  code: z.string().min(1).max(20),
  channel: z.string().min(1).max(32),
});
export type Binding = z.infer<typeof bindingSchema>;

/** More quantities than this no run has, and no plan remembers. */
export const mostQuantities = 512;
const longestRun = 86_400;
/** The link keeps ten seconds of every stream; a run may begin so far in the past, and be entered meanwhile. */
export const longestKept = 5;

const quantityKey = z.string().min(1).max(12);
const kept = finite
  .min(0, 'the time kept from before is not negative')
  .max(longestKept, `at most ${longestKept} s are kept from before`);

/** A level that a reading, or how fast it changes, rises or falls through. */
export const levelSchema = z.object({
  /** Key of the quantity in the runs. */
  quantity: quantityKey,
  of: z.enum(['reading', 'speed']),
  direction: z.enum(['rise', 'fall']),
  value: finite,
  /** UCUM code; of a speed it is that of the reading over seconds. */
  unit: plainText.pipe(z.string().max(40)),
});
export type Level = z.infer<typeof levelSchema>;

/** Ways in which a run begins. Adding one: its schema here, and a file in the recorder's `beginnings` with its line there. */
export const beginningSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('at-once') }),
  z.object({
    kind: z.literal('countdown'),
    seconds: finite.min(1, 'a countdown lasts at least 1 s').max(600, 'a countdown lasts at most 10 minutes'),
  }),
  z.object({ kind: z.literal('level'), level: levelSchema, keptSeconds: kept }),
  z.object({
    kind: z.literal('switch'),
    quantity: quantityKey,
    to: z.enum(['on', 'off']),
    keptSeconds: kept,
  }),
]);
export type Beginning = z.infer<typeof beginningSchema>;

/** Ways in which a run ends by itself; it can always be stopped. */
export const endingSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('after'),
    seconds: finite.min(0.001, 'a run lasts at least 0.001 s').max(longestRun, 'a run lasts at most a day'),
  }),
  z.object({
    kind: z.literal('level'),
    level: levelSchema,
    /** Ends there at the latest. */
    atMostSeconds: finite.min(0.1).max(longestRun),
  }),
  z.object({
    kind: z.literal('events'),
    quantity: quantityKey,
    count: z.number().int().min(1, 'a run ends after at least one event').max(100_000),
    atMostSeconds: finite.min(0.1).max(longestRun),
  }),
  z.object({ kind: z.literal('stopped') }),
]);
export type Ending = z.infer<typeof endingSchema>;

export const planSchema = z.object({
  format: z.literal(4),
  /** How is recorded: against time, one reading after the other, by a device that is carried off, or after a line. */
  way: z.enum(['time', 'spot', 'away', 'pace']),
  spot: spotPlanSchema,
  /** The line that is followed. */
  pace: paceTargetSchema.nullable(),
  begin: beginningSchema,
  end: endingSchema,
  /** How many runs one press records; null as many as come until it is stopped. */
  times: z.number().int().min(1, 'at least one run').max(500, 'at most 500 runs').nullable(),
  /** Whether the next runs are for practice: kept apart, and cleared together. */
  practice: z.boolean(),
  /** What is to be said of every run. */
  conditions: z
    .array(conditionColumnSchema)
    .max(12, 'at most 12 conditions')
    .refine(
      (columns) => new Set(columns.map(({ key }) => key)).size === columns.length,
      'every condition needs a key of its own',
    ),
  /** What is said of the first run before it is recorded; every later one takes it over from the run before. */
  forNext: z
    .object({
      conditions: conditionValuesSchema,
      group: groupSchema,
      /** The planned row that the next run is to fill; null for the first that is open. */
      planned: plannedKey.nullable().default(null),
    })
    .default({ conditions: {}, group: '', planned: null }),
  bindings: z.array(bindingSchema).max(mostQuantities),
});
export type Plan = z.infer<typeof planSchema>;
export type Way = Plan['way'];

export const usualPlan: Plan = {
  format: 4,
  way: 'time',
  spot: usualSpotPlan,
  pace: null,
  begin: { kind: 'at-once' },
  end: { kind: 'after', seconds: 8 },
  times: 1,
  practice: false,
  conditions: [],
  forNext: { conditions: {}, group: '', planned: null },
  bindings: [],
};

/** How long a run lasts at most; null where only a person ends it. */
export function longestOf({ end }: Pick<Plan, 'end'>): number | null {
  switch (end.kind) {
    case 'after':
      return end.seconds;
    case 'level':
    case 'events':
      return end.atMostSeconds;
    case 'stopped':
      return null;
  }
}

/** The stretch before the beginning that a run keeps, in seconds. */
export const keptOf = ({ begin }: Pick<Plan, 'begin'>): number =>
  'keptSeconds' in begin ? begin.keptSeconds : 0;

const planFormat: DocumentFormat<Plan> = {
  title: 'plan',
  isMany: false,
  format: 4,
  schema: planSchema,
  steps: [
    (older) => ({ ...older, begin: { kind: 'at-once' }, bindings: [] }),
    ({ lengthSeconds, ...older }) => ({
      ...older,
      end: lengthSeconds === null ? { kind: 'stopped' } : { kind: 'after', seconds: lengthSeconds },
      times: 1,
      practice: false,
      conditions: [],
    }),
    (older) => ({ ...older, way: 'time', spot: usualSpotPlan, pace: null }),
  ],
};

/** A stored plan of any known format in today's form. @throws UnreadableDocument */
export const readPlan = (stored: unknown): Plan => readDocument(planFormat, stored);
