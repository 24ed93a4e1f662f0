import { z } from 'zod';
import { finite } from './basics';
import { keySchema } from './linkBasics';

/** How a run begins that a device records by itself. */
export const awayBeginSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('at-once') }),
  /** When somebody presses the button of the device. */
  z.object({ kind: z.literal('button') }),
  z.object({
    kind: z.literal('level'),
    /** Key of a channel of the device; the value is in the device's own unit and before any zero. */
    channel: keySchema,
    direction: z.enum(['rise', 'fall']),
    value: finite,
  }),
]);
export type AwayBegin = z.infer<typeof awayBeginSchema>;

export const keptStates = ['waiting', 'recording', 'finished', 'full', 'stopped'] as const;
const id = z
  .number()
  .int()
  .min(1)
  .max(2 ** 31 - 1);

/** What a device says of a run that it keeps. */
export const keptRunSchema = z.object({
  id,
  state: z.enum(keptStates),
  /** When it began, by the device's clock in seconds; null where it has not begun, or where that clock was lost. */
  begun: finite.nullable(),
  /** Readings of each of its streams so far. */
  counts: z.record(
    keySchema,
    z
      .number()
      .int()
      .min(0)
      .max(2 ** 32 - 1),
  ),
});
export type KeptRun = z.infer<typeof keptRunSchema>;

/** From a device: what it keeps, sent after "welcome" and whenever it changes. */
export const keptSchema = z.object({
  type: z.literal('kept'),
  /** Its clock now, in seconds. */
  clock: finite,
  /** Numbers that it has room for. */
  room: z.number().int().min(0),
  runs: z.array(keptRunSchema).max(64),
});
export type KeptMessage = z.infer<typeof keptSchema>;

const of = keySchema;
/** To a device that keeps runs. */
export const awayMessages = [
  z.object({
    type: z.literal('prepare'),
    id,
    streams: z
      .array(z.object({ of, rate: finite.positive(), ranges: z.record(keySchema, keySchema) }))
      .min(1)
      .max(8),
    /** How long it records; null until its memory is full or it is told to end. */
    seconds: finite.positive().nullable(),
    begin: awayBeginSchema,
  }),
  /** It records no more. */
  z.object({ type: z.literal('end'), id }),
  /** It sends so many readings of one stream, or all that it has from there on where they are fewer. */
  z.object({
    type: z.literal('fetch'),
    id,
    of,
    from: z.number().int().min(0),
    count: z.number().int().min(1),
  }),
  /** It may forget the run: all of it is stored, or nobody wants it. */
  z.object({ type: z.literal('erase'), id }),
] as const;

/** What a person asks for. */
export const prepareSchema = z
  .object({
    code: z.string().min(1).max(20),
    seconds: finite
      .min(0.1, 'a run lasts at least 0.1 s')
      .max(30 * 86_400, 'a run lasts at most 30 days')
      .nullable(),
    begin: z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('at-once') }),
      z.object({ kind: z.literal('button') }),
      z.object({
        kind: z.literal('level'),
        channel: keySchema,
        direction: z.enum(['rise', 'fall']),
        /** In the unit in which the channel is shown. */
        value: finite,
      }),
    ]),
  })
  .strict();
export type Prepare = z.infer<typeof prepareSchema>;
export const fetchAwaySchema = z.object({ end: z.boolean() }).strict();

/** A run that a device keeps, as people see it. */
export const awayRunSchema = z.object({
  id: z.number().int(),
  /** Null where this Heuristor has not prepared it. */
  investigation: z.string().nullable(),
  state: z.enum(keptStates),
  /** When it began, by this computer's clock; null where it has not begun, or where the device's clock was lost. */
  begunAt: z.string().nullable(),
  clockLost: z.boolean(),
  /** Readings that it has taken, and how many of them are stored here. */
  count: z.number().int(),
  stored: z.number().int(),
  /** Numbers a second and how long it is to be; null without an end. */
  seconds: finite.nullable(),
  /** Whether it is being fetched just now. */
  isFetching: z.boolean(),
  discarded: z.boolean(),
  /** The run that it has become. */
  run: z.string().nullable(),
});
export type AwayRun = z.infer<typeof awayRunSchema>;

/** What a device that records by itself holds. */
export const awaySchema = z.object({
  /** Numbers that its memory has in all, and those that are free. */
  keeps: z.number().int(),
  room: z.number().int(),
  runs: z.array(awayRunSchema),
});
export type Away = z.infer<typeof awaySchema>;
